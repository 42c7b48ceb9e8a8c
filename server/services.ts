import { mkdirSync, rmSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { openDb, type Handle } from './db/client'
import { lockFolder } from './db/folder-lock'
import { CubeClient } from './engine/cube-client'
import { Exporter } from './exports/exporter'
import { Importer } from './imports/importer'
import { watchRateCards } from './jobs/rate-card-schedule'
import { sendSentences } from './jobs/send-sentences'
import { watchSources } from './jobs/watch-sources'

export type Services = {
  database: Handle
  cube: CubeClient
  importer: Importer
  exporter: Exporter
  dataDir: string
  close: () => Promise<void>
}

/** Opens everything the routes need on a data folder. */
export async function startServices(dataDir: string, serverDir: string): Promise<Services> {
  const unlock = lockFolder(dataDir)
  rmSync(join(dataDir, 'inbox'), { recursive: true, force: true }) // files of loads that a killed process left
  mkdirSync(join(dataDir, 'inbox'), { recursive: true })
  const database = await openDb(dataDir, serverDir)
  const cube = new CubeClient(serverDir, database)
  const importer = new Importer(database, cube, serverDir)
  await importer.recover()
  await cube.refresh()
  const exporter = new Exporter(serverDir)
  const engine = { database, cube, importer, exporter, dataDir }
  const jobs = [watchRateCards(engine), watchSources(engine), sendSentences(engine)]
  return {
    database,
    cube,
    importer,
    dataDir,
    exporter,
    async close() {
      for (const stop of jobs) stop()
      importer.close()
      await cube.close()
      await database.close()
      unlock()
    },
  }
}

let running: Promise<Services> | undefined

/** The folder that keeps everything: RAIN_BARREL_DATA, else `.data`. */
export function dataFolder(): string {
  return resolve(process.env.RAIN_BARREL_DATA || '.data')
}

/** Starts the services once; the plugin calls it when the server starts. */
export function openServices(serverDir: string): Promise<Services> {
  running ??= startServices(dataFolder(), serverDir)
  return running
}

/** The running services; waits for their start. */
export function services(): Promise<Services> {
  if (!running) throw new Error('the services have not been started')
  return running
}
