import { createHash } from 'node:crypto'
import { createReadStream, existsSync, readdirSync, statSync } from 'node:fs'
import { copyFile } from 'node:fs/promises'
import { dirname, isAbsolute, join } from 'node:path'
import { z } from 'zod'
import { deliver } from '../../imports/deliver'
import { stated } from '../../imports/delivered'
import { deliveryKey } from '../../imports/importer'
import type { Services } from '../../services'
import { findMapping } from '../../stores/mappings'
import { findWatch, type StoredWatch } from '../../stores/watches'
import type { JobKind } from './kind'

/** A file that was written to within this time may not be whole yet. */
const SETTLED_MS = 3000
const readable = /\.(csv|csv\.gz|gz|parquet)$/i

/** Looks into a folder and takes what is new as deliveries. */
export const watchedFolder: JobKind<{ watch: number }> = {
  kind: 'watched-folder',
  does: 'Look into a watched folder',
  argument: z.object({ watch: z.number().int() }),
  stops: false,
  async describe({ watch }, db) {
    const row = await findWatch(db, watch)
    return { about: row ? `${row.place}, for ${row.source}` : `watch ${watch}`, page: '/sources' }
  },
  async run({ watch }, { services }) {
    const row = await findWatch(services.database.db, watch)
    return { said: row ? await lookInto(services, row) : 'It is not watched any more.', result: undefined }
  },
}

async function lookInto(services: Services, { source, place, together, who }: StoredWatch): Promise<string> {
  if (!isAbsolute(place)) return `«${place}» is not a full path. Write it from the root, such as /srv/bills.`
  if (!existsSync(place) || !statSync(place).isDirectory()) return `The folder ${place} is not there. Make it, or name another.`
  const known = await services.importer.knownDeliveries(source)
  const mapping = await findMapping(services.database.db, source)
  const taken: string[] = []
  const seen: Hashes = new Map()
  let waiting = 0
  for (const names of deliveriesIn(place, together)) {
    const files = names.map(name => {
      const { size, mtimeMs } = statSync(join(place, name))
      return { name, bytes: size, mtimeMs }
    })
    const unsettled = files.filter(file => Date.now() - file.mtimeMs < SETTLED_MS).length
    if (unsettled) {
      waiting += unsettled // one part that is not whole keeps the others of its delivery waiting
      continue
    }
    const hashed = await Promise.all(
      files.map(async file => ({
        name: file.name,
        bytes: file.bytes,
        sha256: await hashOf(join(place, file.name), `${file.bytes} ${file.mtimeMs}`, hashes.get(place), seen),
      })),
    )
    if (known.has(deliveryKey(hashed))) continue
    // copied, so that nobody writes to them while they are read
    const at = new Date(Math.max(...files.map(file => file.mtimeMs))).toISOString()
    await deliver(services.importer, { source, files: hashed, who, mapping, ...stated(at, 'file') }, async (path, number) => {
      await copyFile(join(place, hashed[number]!.name), path)
      return hashed[number]!
    })
    taken.push(names.length === 1 ? names[0]! : `${names.length} files of ${dirname(names[0]!) === '.' ? place : dirname(names[0]!)}`)
  }
  hashes.set(place, seen)
  return `${taken.length ? `took ${taken.join(', ')}` : 'nothing new'}${waiting ? `; ${waiting} still being written` : ''}`
}

/** Names of the readable files of a folder and those below it, delivery by delivery. */
function deliveriesIn(place: string, together: StoredWatch['together']): string[][] {
  const names = readdirSync(place, { recursive: true, encoding: 'utf8' })
    .filter(name => readable.test(name) && statSync(join(place, name)).isFile())
    .sort()
  if (together === 'file') return names.map(name => [name])
  const folders = new Map<string, string[]>()
  for (const name of names) folders.set(dirname(name), [...(folders.get(dirname(name)) ?? []), name])
  return [...folders.values()]
}

type Hashes = Map<string, { state: string; sha256: string }>
/**
 * By folder the hashes of its files at the last look, with what their size and time were: a large folder is not read through at every look.
 */
const hashes = new Map<string, Hashes>()

async function hashOf(path: string, state: string, before: Hashes | undefined, seen: Hashes): Promise<string> {
  const known = before?.get(path)
  const found = known?.state === state ? known : { state, sha256: await hashBytes(path) }
  seen.set(path, found)
  return found.sha256
}

async function hashBytes(path: string): Promise<string> {
  const hash = createHash('sha256')
  for await (const chunk of createReadStream(path)) hash.update(chunk as Buffer)
  return hash.digest('hex')
}
