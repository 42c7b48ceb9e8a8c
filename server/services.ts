import { randomUUID } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { ChargeStore } from './charges/charge-store'
import { connectFromEnvironment } from './jobs/connections'
import { lockFolder } from './db/folder-lock'
import { openDatabase } from './db/open-database'
import { CubeClient } from './charges/cube-client'
import { CubeThread } from './charges/cube-thread'
import { Exporter } from './exports/exporter'
import { BodyReader } from './bodies/body-reader'
import { Importer } from './imports/importer'
import { Inbox } from './imports/inbox'
import { JobRunner } from './jobs/runner'
import { People } from './people'
import type { Tools } from './use-cases/work'

export type Services = Tools & {
  bodies: BodyReader
  jobs: JobRunner
  /** Known to whoever can read the data folder. */
  token: string
  close: () => Promise<void>
}

/**
 * Opens everything the routes need on a data folder.
 * @param url the address of a PostgreSQL server's database; without one everything is kept in the folder.
 * @param address where the server answers, for whoever maintains the folder.
 */
export async function startServices(
  dataDir: string,
  serverDir: string,
  { url = process.env.DATABASE_URL || undefined, address }: { url?: string | undefined; address?: string } = {},
): Promise<Services> {
  mkdirSync(join(dataDir, 'watched'), { recursive: true }) // what is put there may be watched without a setting
  const token = randomUUID()
  const unlock = lockFolder(dataDir, address ? { address, token } : {})
  const place = placeOf(dataDir)
  const thread = new CubeThread(serverDir) // is there by the time the database is
  const database = await openDatabase({ dataDir, serverDir, url }).catch(async (error: unknown) => {
    await thread.end()
    throw error
  })
  const charges = new ChargeStore(database)
  const cube = new CubeClient(thread, charges, database)
  const importer = new Importer(database, charges, cube, new Inbox(dataDir), place, serverDir)
  const people = new People(database)
  await people.refresh()
  await people.follow()
  await importer.arrivals.recover()
  await cube.refresh()
  await cube.follow()
  await connectFromEnvironment(database.db)
  const tools: Tools = { database, charges, cube, importer, people, dataDir, serverDir, exporter: new Exporter(serverDir) }
  const jobs = new JobRunner(tools, place)
  const bodies = new BodyReader(serverDir)
  await jobs.start()
  const close = async () => {
    importer.close()
    bodies.close()
    await jobs.close()
    await cube.close()
    await database.close()
    unlock()
  }
  return { ...tools, jobs, bodies, token, close }
}

/** What tells a data folder from others on the same database: made once. */
function placeOf(dataDir: string): string {
  const file = join(dataDir, 'place')
  mkdirSync(dataDir, { recursive: true })
  if (!existsSync(file)) {
    writeFileSync(`${file}.new`, randomUUID())
    renameSync(`${file}.new`, file) // there whole or not at all
  }
  return readFileSync(file, 'utf8').trim()
}

let running: Promise<Services> | undefined

/** The folder that keeps everything: RAIN_BARREL_DATA, else `.data`. */
export function dataFolder(): string {
  return resolve(process.env.RAIN_BARREL_DATA || '.data')
}

/** Starts the services once; the plugin calls it when the server starts. */
export function openServices(serverDir: string): Promise<Services> {
  const port = process.env.NITRO_PORT || process.env.PORT || '3000'
  running ??= startServices(dataFolder(), serverDir, {
    address: `http://${process.env.NITRO_HOST || process.env.HOST || '127.0.0.1'}:${port}`,
  })
  return running
}

/** The running services; waits for their start. */
export function services(): Promise<Services> {
  if (!running) throw new Error('the services have not been started')
  return running
}
