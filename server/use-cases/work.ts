import type { ChargeStore } from '../charges/charge-store'
import type { ChargesSeen } from '../charges/charges-seen'
import type { CubeClient } from '../charges/cube-client'
import type { Database } from '../db/database'
import type { Exporter } from '../exports/exporter'
import type { Importer } from '../imports/importer'
import type { Asker, People } from '../people'

/** What jobs work with: all that is there once a data folder is open, whoever asks. */
export type Tools = {
  database: Database
  charges: ChargeStore
  cube: CubeClient
  importer: Importer
  exporter: Exporter
  people: People
  dataDir: string
  /** Where the server's own files lie, threads among them. */
  serverDir: string
}

/** What a use case works with: what runs, who asks, and the charges that they may see. */
export type Work = Omit<Tools, 'cube'> & {
  asker: Asker
  seen: ChargesSeen
  /** Tells the charges what has changed beside them. */
  refreshReference: () => Promise<void>
  /** Tells the charges what was measured since. */
  refreshMeasured: () => Promise<void>
}

/** What runs by itself sees all, or what the one sees for whom it runs. */
export const workFor = ({ cube, ...tools }: Tools, asker: Asker): Work => ({
  ...tools,
  asker,
  seen: cube.within(asker.bound),
  refreshReference: () => cube.refreshReference(),
  refreshMeasured: () => cube.refreshMeasured(),
})
