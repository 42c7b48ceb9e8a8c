import { createHash, randomUUID } from 'node:crypto'
import { createReadStream, existsSync, mkdirSync, readdirSync, statSync } from 'node:fs'
import { copyFile } from 'node:fs/promises'
import { dirname, isAbsolute, join } from 'node:path'
import type { Mapping } from '../../core/focus/mapping/mapping'
import { connectors } from '../connectors'
import { fetchBill } from '../imports/fetch-bill'
import { deliveryKey, type ArrivedFile } from '../imports/importer'
import { findMapping } from '../stores/mappings'
import { listWatches, noteLooked, type StoredWatch } from '../stores/watches'
import type { Services } from '../services'
import { repeatedly } from './repeatedly'

const LOOK_EVERY_MS = 30_000
const MINUTE_MS = 60_000
/** A file that was written to within this time may not be whole yet. */
const SETTLED_MS = 3000
const readable = /\.(csv|csv\.gz|gz|parquet)$/i

type Engine = Pick<Services, 'database' | 'importer' | 'dataDir'>

/** Looks into a watched folder, or asks a connection, and queues what is new. @returns what came of it, in words. */
export async function lookNow(engine: Engine, watch: StoredWatch): Promise<string> {
  const said = watch.kind === 'folder' ? await lookIntoFolder(engine, watch) : await askConnection(engine, watch)
  await noteLooked(engine.database.db, watch.id, said)
  return said
}

async function lookIntoFolder(engine: Engine, { source, place, together, who }: StoredWatch): Promise<string> {
  if (!isAbsolute(place)) return `«${place}» is not a full path. Write it from the root, such as /srv/bills.`
  if (!existsSync(place) || !statSync(place).isDirectory()) return `The folder ${place} is not there. Make it, or name another.`
  const known = await engine.importer.knownDeliveries(source)
  const mapping = await findMapping(engine.database.db, source)
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
    await take(engine, source, place, hashed, who, mapping)
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

/** Copies the files of a delivery, so that nobody writes to them while they are read, and queues it. */
async function take(
  { importer, dataDir }: Engine,
  source: string,
  place: string,
  files: Omit<ArrivedFile, 'path'>[],
  who: string,
  mapping: Mapping | null,
): Promise<void> {
  const folder = join(dataDir, 'inbox', randomUUID())
  mkdirSync(folder, { recursive: true })
  const arrived = files.map((file, i) => ({ ...file, path: join(folder, String(i)) }))
  for (const { name, path } of arrived) await copyFile(join(place, name), path)
  await importer.start(source, arrived, folder, who, mapping)
}

async function askConnection(engine: Engine, { place, who }: StoredWatch): Promise<string> {
  const connector = connectors()[place]
  if (!connector) return `Nothing is connected under «${place}».`
  const now = await connector.clock()
  const id = await fetchBill(engine, place, connector, now, who)
  return `asked for the bill to ${now.slice(0, 10)}: load ${id}`
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

/** Looks every half minute which watches are due. @returns how to stop it. */
export function watchSources(engine: Engine): () => void {
  return repeatedly(LOOK_EVERY_MS, async () => {
    for (const watch of await listWatches(engine.database.db)) {
      if (watch.lastAskedAt && Date.now() - new Date(watch.lastAskedAt).getTime() < watch.everyMinutes * MINUTE_MS) continue
      await lookNow(engine, watch).catch((error: Error) => noteLooked(engine.database.db, watch.id, error.message))
    }
  })
}
