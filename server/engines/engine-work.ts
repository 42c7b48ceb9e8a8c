import type { JobRunner } from '../jobs/runner'
import type { Asker } from '../people'
import type { Services } from '../services'
import { workFor, type Work } from '../use-cases/work'

/** What engines work with: what use cases do, what runs by itself, and what a maintainer has to know. */
export type EngineWork = Work & { jobs: JobRunner; token: string }

/** What engines work with for whoever asks. */
export const engineWork = (services: Services, asker: Asker): EngineWork => {
  const { database, charges, cube, importer, exporter, people, dataDir, serverDir, jobs, token } = services
  return { ...workFor({ database, charges, cube, importer, exporter, people, dataDir, serverDir }, asker), jobs, token }
}
