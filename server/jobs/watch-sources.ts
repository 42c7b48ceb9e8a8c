import { createHash, randomUUID } from 'node:crypto'
import { copyFileSync, createReadStream, existsSync, mkdirSync, readdirSync, statSync } from 'node:fs'
import { isAbsolute, join } from 'node:path'
import { connectors } from '../connectors'
import { fetchBill } from '../imports/fetch-bill'
import { findMapping } from '../stores/mappings'
import { listWatches, noteLooked, type StoredWatch } from '../stores/watches'
import type { Services } from '../services'

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

async function lookIntoFolder({ database, importer, dataDir }: Engine, { source, place, who }: StoredWatch): Promise<string> {
  if (!isAbsolute(place)) return `«${place}» is not a full path. Write it from the root, such as /srv/bills.`
  if (!existsSync(place) || !statSync(place).isDirectory()) return `The folder ${place} is not there. Make it, or name another.`
  const known = await importer.knownFiles(source)
  const mapping = await findMapping(database.db, source)
  const taken: string[] = []
  let waiting = 0
  for (const name of readdirSync(place).filter(file => readable.test(file)).sort()) {
    const path = join(place, name)
    const { size, mtimeMs } = statSync(path)
    if (Date.now() - mtimeMs < SETTLED_MS) {
      waiting++
      continue
    }
    const sha256 = await hashOf(path)
    if (known.has(sha256)) continue
    const folder = join(dataDir, 'inbox', randomUUID())
    mkdirSync(folder, { recursive: true })
    copyFileSync(path, join(folder, '0'))
    await importer.start(source, [{ name, path: join(folder, '0'), bytes: size, sha256 }], folder, who, mapping)
    taken.push(name)
  }
  return `${taken.length ? `took ${taken.join(', ')}` : 'nothing new'}${waiting ? `; ${waiting} still being written` : ''}`
}

async function askConnection(engine: Engine, { place, who }: StoredWatch): Promise<string> {
  const connector = connectors()[place]
  if (!connector) return `Nothing is connected under «${place}».`
  const now = await connector.clock()
  const id = await fetchBill(engine, place, connector, now, who)
  return `asked for the bill to ${now.slice(0, 10)}: load ${id}`
}

async function hashOf(path: string): Promise<string> {
  const hash = createHash('sha256')
  for await (const chunk of createReadStream(path)) hash.update(chunk as Buffer)
  return hash.digest('hex')
}

/** Looks every half minute which watches are due. @returns how to stop it. */
export function watchSources(engine: Engine): () => void {
  let looking = false
  async function look() {
    if (looking) return
    looking = true
    try {
      for (const watch of await listWatches(engine.database.db)) {
        if (watch.lastAskedAt && Date.now() - new Date(watch.lastAskedAt).getTime() < watch.everyMinutes * MINUTE_MS) continue
        await lookNow(engine, watch).catch((error: Error) => noteLooked(engine.database.db, watch.id, error.message))
      }
    }
    finally {
      looking = false
    }
  }
  const timer = setInterval(() => void look().catch((error: Error) => console.error(error)), LOOK_EVERY_MS)
  timer.unref()
  return () => clearInterval(timer)
}
