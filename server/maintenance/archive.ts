import { createHash } from 'node:crypto'
import { createReadStream } from 'node:fs'
import { pipeline } from 'node:stream/promises'
import type { Writable } from 'node:stream'
import { extract, pack } from 'tar-stream'
import { MANIFEST, MANIFEST_HASH, MaintenanceFailed, manifestSchema, type Manifest } from './manifest'

export const sha256 = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex')

/** Writes parts one after the other into a tar archive. @returns what notes a part and what ends the archive. */
export function archiveWriter(out: Writable) {
  const tar = pack()
  const written = pipeline(tar, out)
  written.catch(() => {}) // told where it is waited for
  const put = (part: string, bytes: Uint8Array) =>
    new Promise<void>((resolve, reject) => {
      written.catch(reject)
      tar.entry({ name: part, size: bytes.length, mtime: new Date(0) }, Buffer.from(bytes), error => (error ? reject(error) : resolve()))
    })
  return {
    async add(part: string, bytes: Uint8Array) {
      await put(part, bytes)
      return { part, bytes: bytes.length, sha256: sha256(bytes) }
    },
    async end(manifest: Manifest) {
      const bytes = Buffer.from(JSON.stringify(manifest))
      await put(MANIFEST, bytes)
      await put(MANIFEST_HASH, Buffer.from(sha256(bytes)))
      tar.finalize()
      await written
    },
  }
}

/** Reads the parts of an archive in their order, each whole. @throws MaintenanceFailed for a file that is none, or ends too soon. */
export async function readArchive(file: string, take: (part: string, bytes: Buffer) => Promise<void> | void): Promise<void> {
  const tar = extract()
  const done = pipeline(createReadStream(file), tar)
  done.catch(() => {}) // told below
  try {
    for await (const entry of tar) {
      const chunks: Buffer[] = []
      for await (const chunk of entry) chunks.push(chunk as Buffer)
      await take(entry.header.name, Buffer.concat(chunks))
    }
    await done
  } catch (error) {
    if (error instanceof MaintenanceFailed) throw error
    throw new MaintenanceFailed(`${file} cannot be read as a backup: ${(error as Error).message}. Take another one.`)
  }
}

/**
 * Reads a backup whole and holds every part against its hash.
 * @throws MaintenanceFailed that names what is damaged or missing.
 */
export async function verifyBackup(file: string): Promise<Manifest> {
  const seen = new Map<string, { bytes: number; sha256: string }>()
  let text: Buffer | null = null
  let hash = ''
  await readArchive(file, (part, bytes) => {
    seen.set(part, { bytes: bytes.length, sha256: sha256(bytes) })
    if (part === MANIFEST) text = bytes
    if (part === MANIFEST_HASH) hash = bytes.toString()
  })
  if (!text || !hash)
    throw new MaintenanceFailed(`${file} is not a whole backup: it has no end. It was cut off while it was written or copied.`)
  if (sha256(text) !== hash) throw new MaintenanceFailed(`${file} is damaged: its list of parts is not what was written.`)
  const read = manifestSchema.safeParse(JSON.parse((text as Buffer).toString()))
  if (!read.success)
    throw new MaintenanceFailed(`${file} is a backup of a kind that this version cannot read. Restore it with the version that made it.`)
  const wrong = [...read.data.tables, ...read.data.segments].flatMap(({ part, bytes, sha256: wanted }) => {
    const found = seen.get(part)
    return !found ? `${part} is missing` : found.bytes !== bytes || found.sha256 !== wanted ? `${part} is damaged` : []
  })
  if (wrong.length)
    throw new MaintenanceFailed(
      `${file} is damaged: ${wrong.slice(0, 5).join(', ')}${wrong.length > 5 ? ` and ${wrong.length - 5} more` : ''}.`,
    )
  return read.data
}
