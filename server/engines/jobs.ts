import { jobViews } from '../jobs/views'
import type { jobs } from '../operations/jobs'
import type { BodyOf } from '../operations/operation'
import { conflict, notFound } from '../problems/problem'
import { changeJob, findJobById } from '../stores/jobs'
import type { EngineWork } from './engine-work'

/** What runs by itself, and what runs now. */
export class Jobs {
  constructor(private readonly work: EngineWork) {}

  async list() {
    return { jobs: await jobViews(this.work) }
  }

  /** Changes a job's rhythm, pauses it or lets it go on, or says who is to be told. */
  async change(id: number, change: BodyOf<(typeof jobs)['change']>) {
    if (!(await changeJob(this.work.database.db, id, change))) throw notFound('job', 'It may have been deleted already.')
    await this.work.jobs.tell()
    return { id }
  }

  /** Runs a job now, whether it is due or not; what comes of it stands in its row. */
  async run(id: number) {
    await this.work.jobs.startNow(id, this.work.asker.id)
    return { id }
  }

  /** Asks a job to stop, whichever process runs it. */
  async stop(id: number) {
    const job = await findJobById(this.work.database.db, id)
    if (!job) throw notFound('job', 'It may have been deleted already.')
    if (!(await this.work.jobs.stop(job.name))) throw conflict('It has ended', 'There is nothing to stop.')
    return { id }
  }
}
