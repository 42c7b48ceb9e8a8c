import { createHash } from 'node:crypto'
import { createReadStream, existsSync, readdirSync, statSync } from 'node:fs'
import { copyFile } from 'node:fs/promises'
import { dirname, isAbsolute, join } from 'node:path'
import { z } from 'zod'
import { MOST_TRIES } from '../../../core/time/retry'
import { deliver } from '../../imports/deliver'
import { deliveryKey, type ArrivedFile } from '../../imports/importer'
import type { Services } from '../../services'
import { findMapping } from '../../stores/mappings'
import { findWatch, type StoredWatch } from '../../stores/watches'
import { SCHEDULE, type JobKind } from './kind'
import { inOrder, watchedVerdict } from './watched-delivery'

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
  async run({ watch }, { services, who }) {
    const row = await findWatch(services.database.db, watch)
    return { said: row ? await lookInto(services, row, who !== SCHEDULE) : 'It is not watched any more.', result: undefined }
  },
}

async function lookInto(services: Services, { source, place, together, who }: StoredWatch, isAsked: boolean): Promise<string> {
  if (!isAbsolute(place)) return `«${place}» is not a full path. Write it from the root, such as /srv/bills.`
  if (!existsSync(place) || !statSync(place).isDirectory()) return `The folder ${place} is not there. Make it, or name another.`
  const mapping = await findMapping(services.database.db, source)
  const now = new Date().toISOString()
  const said: string[] = []
  const taken: string[] = []
  const { deliveries, unsettled } = await readDeliveries(place, together)
  const loads = await services.importer.delivered(source)
  for (const { key, at, name, files } of inOrder(deliveries)) {
    const verdict = watchedVerdict({ key, at }, loads, { now, isFirst: taken.length === 0, isAsked })
    if (verdict.what === 'wait')
      said.push(`${name} was ${verdict.load.state} (load ${verdict.load.id}), tried again from ${timeOf(verdict.until)}`)
    if (verdict.what === 'tell')
      said.push(`${name} was ${verdict.load.state} ${MOST_TRIES} times (load ${verdict.load.id}): mend the file, or look now to try again`)
    if (verdict.what !== 'take') continue
    // copied, so that nobody writes to them while they are read
    await deliver(services.importer, { source, files, who, mapping, delivered: { at, by: 'file' } }, async (path, number) => {
      await copyFile(join(place, files[number]!.name), path)
      return files[number]!
    })
    taken.push(name)
  }
  if (taken.length) said.unshift(`took ${taken.join(', ')}`)
  else if (!said.length) said.push('nothing new')
  if (unsettled) said.push(`${unsettled} still being written`)
  return said.join('; ')
}

/** `18:40 UTC` */
const timeOf = (instant: string) => `${instant.slice(11, 16)} UTC`

type Read = { key: string; at: string; name: string; files: ArrivedFile[] }

/** The deliveries in a folder, and how many files are not whole yet: one part that is not keeps the others of its delivery waiting. */
async function readDeliveries(place: string, together: StoredWatch['together']): Promise<{ deliveries: Read[]; unsettled: number }> {
  const seen: Hashes = new Map()
  const deliveries: Read[] = []
  let unsettled = 0
  for (const names of deliveriesIn(place, together)) {
    const files = names.map(name => {
      const { size, mtimeMs } = statSync(join(place, name))
      return { name, bytes: size, mtimeMs }
    })
    const fresh = files.filter(file => Date.now() - file.mtimeMs < SETTLED_MS).length
    unsettled += fresh
    if (fresh) continue
    const hashed = await Promise.all(
      files.map(async file => ({
        name: file.name,
        bytes: file.bytes,
        sha256: await hashOf(join(place, file.name), `${file.bytes} ${file.mtimeMs}`, hashes.get(place), seen),
      })),
    )
    deliveries.push({
      key: deliveryKey(hashed),
      at: new Date(Math.floor(Math.max(...files.map(file => file.mtimeMs)))).toISOString(),
      name: names.length === 1 ? names[0]! : `${names.length} files of ${dirname(names[0]!) === '.' ? place : dirname(names[0]!)}`,
      files: hashed,
    })
  }
  hashes.set(place, seen)
  return { deliveries, unsettled }
}

/** Names of the readable files of a folder and those below it, delivery by delivery. */
function deliveriesIn(place: string, together: StoredWatch['together']): string[][] {
  const names = readdirSync(place, { recursive: true, encoding: 'utf8' }).filter(
    name => readable.test(name) && statSync(join(place, name)).isFile(),
  )
  if (together === 'file') return names.map(name => [name])
  const folders = new Map<string, string[]>()
  for (const name of names.sort()) folders.set(dirname(name), [...(folders.get(dirname(name)) ?? []), name])
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
