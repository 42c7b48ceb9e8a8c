import { createHash } from 'node:crypto'
import { dirname, join } from 'node:path'
import { z } from 'zod'
import { MOST_TRIES } from '../../../core/time/retry'
import { WATCH_LIMITS } from '../../../shared/contracts/watches'
import { deliver } from '../../imports/deliver'
import { deliveryKey, type ArrivedFile } from '../../imports/load-row'
import { takeIn } from '../../imports/take-in'
import { findFiles, NotWatchable, openPlainFile, watchable, type Found, type FoundFile } from '../../imports/watched-files'
import type { Tools } from '../../use-cases/work'
import { changeJob, findJob } from '../../stores/jobs'
import { findMapping } from '../../stores/mappings'
import { findWatch, type StoredWatch } from '../../stores/watches'
import { SCHEDULE, type JobKind } from './kind'
import { inOrder, watchedVerdict } from './watched-delivery'

/** A file that was written to within this time may not be whole yet. */
const SETTLED_MS = 3000

/** The job that looks at what is watched. */
export const watchJob = (id: number) => `watch ${id}`

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
    if (!row) return { said: 'It is not watched any more.', result: undefined }
    try {
      return { ...(await lookInto(services, row, who !== SCHEDULE)), result: undefined }
    } catch (error) {
      if (!(error instanceof NotWatchable)) throw error
      if (error.isOutside) await pause(services, watch)
      return { said: error.message, result: undefined, needsPerson: true }
    }
  },
}

async function pause({ database: { db } }: Pick<Tools, 'database'>, watch: number): Promise<void> {
  const job = await findJob(db, watchJob(watch))
  if (job) await changeJob(db, job.id, { paused: true })
}

async function lookInto(
  services: Tools,
  { source, place, together, who }: StoredWatch,
  isAsked: boolean,
): Promise<{ said: string; needsPerson: boolean }> {
  const { database, importer, dataDir } = services
  const folder = await watchable(place, dataDir)
  const mapping = await findMapping(database.db, source)
  const now = new Date().toISOString()
  const said: string[] = []
  const taken: string[] = []
  let givenUp = 0
  let left = 0
  const { deliveries, unsettled, passedOver } = await readDeliveries(folder, together)
  const loads = await importer.list.delivered(source)
  for (const { key, at, name, files } of inOrder(deliveries)) {
    const verdict = watchedVerdict({ key, at }, loads, { now, isFirst: taken.length === 0, isAsked })
    if (verdict.what === 'wait')
      said.push(`${name} was ${verdict.load.state} (load ${verdict.load.id}), tried again from ${timeOf(verdict.until)}`)
    if (verdict.what === 'tell') {
      givenUp++
      said.push(
        `${name} was ${verdict.load.state} ${MOST_TRIES} times (load ${verdict.load.id}): mend the file, or press “check now” to try again`,
      )
    }
    if (verdict.what !== 'take') continue
    if (taken.length === WATCH_LIMITS.deliveries) {
      left++
      continue
    }
    // copied, so that nobody writes to them while they are read
    await deliver(importer.arrivals, { source, files, who, mapping, delivered: { at, by: 'file' } }, async (path, number) => {
      const { name, sha256 } = files[number]!
      const handle = await openPlainFile(join(folder, name))
      const copied = await takeIn(handle.createReadStream(), name, path)
      if (copied.file.sha256 === sha256) return copied
      await copied.drop()
      throw new Error(`${name} changed while it was read; it is taken at the next look`)
    })
    taken.push(name)
  }
  if (taken.length) said.unshift(`took ${taken.join(', ')}`)
  else if (!said.length) said.push('nothing new')
  if (left) said.push(`${left} more are taken at the next look`)
  if (unsettled) said.push(`${unsettled} still being written`)
  said.push(...passedOver)
  return { said: said.join('; '), needsPerson: givenUp > 0 }
}

/** `18:40 UTC` */
const timeOf = (instant: string) => `${instant.slice(11, 16)} UTC`

type Read = { key: string; at: string; name: string; files: ArrivedFile[] }

/** The deliveries in a folder, and how many files are not whole yet: one part that is not keeps the others of its delivery waiting. */
async function readDeliveries(
  place: string,
  together: StoredWatch['together'],
): Promise<{ deliveries: Read[]; unsettled: number; passedOver: string[] }> {
  const seen: Hashes = new Map()
  const deliveries: Read[] = []
  let unsettled = 0
  const found = await findFiles(place)
  const unreadable = [...found.unreadable]
  for (const files of togetherIn(found.files, together)) {
    const fresh = files.filter(file => Date.now() - file.mtimeMs < SETTLED_MS).length
    unsettled += fresh
    if (fresh) continue
    try {
      const hashed: ArrivedFile[] = []
      for (const { name, bytes, mtimeMs } of files)
        hashed.push({ name, bytes, sha256: await hashOf(join(place, name), `${bytes} ${mtimeMs}`, hashes.get(place), seen) })
      deliveries.push({
        key: deliveryKey(hashed),
        at: new Date(Math.floor(Math.max(...files.map(file => file.mtimeMs)))).toISOString(),
        name:
          files.length === 1
            ? files[0]!.name
            : `${files.length} files of ${dirname(files[0]!.name) === '.' ? place : dirname(files[0]!.name)}`,
        files: hashed,
      })
    } catch {
      // gone or unreadable since it was found: the others are taken
      unreadable.push(files[0]!.name)
    }
  }
  hashes.set(place, seen)
  return { deliveries, unsettled, passedOver: passedOverIn({ ...found, unreadable }) }
}

/** What was passed over, in words. */
const passedOverIn = ({ links, deeper, unreadable }: Pick<Found, 'links' | 'deeper' | 'unreadable'>): string[] => [
  ...(links ? [`${links} ${links === 1 ? 'link' : 'links'} not followed`] : []),
  ...(deeper ? [`${deeper} ${deeper === 1 ? 'folder' : 'folders'} deeper than ${WATCH_LIMITS.depth} not looked into`] : []),
  ...(unreadable.length
    ? [`could not read ${unreadable.slice(0, 3).join(', ')}${unreadable.length > 3 ? ` and ${unreadable.length - 3} more` : ''}`]
    : []),
]

/** Files delivery by delivery. */
function togetherIn(files: readonly FoundFile[], together: StoredWatch['together']): FoundFile[][] {
  if (together === 'file') return files.map(file => [file])
  const folders = new Map<string, FoundFile[]>()
  for (const file of [...files].sort((a, b) => (a.name < b.name ? -1 : 1)))
    folders.set(dirname(file.name), [...(folders.get(dirname(file.name)) ?? []), file])
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
  for await (const chunk of (await openPlainFile(path)).createReadStream()) hash.update(chunk as Buffer)
  return hash.digest('hex')
}
