import type { JobView } from '../../shared/contracts/jobs'
import { listJobs, type StoredJob } from '../stores/jobs'
import type { Tools } from '../use-cases/work'
import { jobKinds } from './kinds'
import type { AnyJobKind } from './kinds/kind'

/** @returns everything that runs by itself, and what runs now. A job of a kind that is not known any more is passed over. */
export async function jobViews(tools: Pick<Tools, 'database' | 'people'>): Promise<JobView[]> {
  const views: JobView[] = []
  for (const job of await listJobs(tools.database.db)) {
    const kind = jobKinds.find(known => known.kind === job.kind)
    if (kind) views.push(await viewOf(job, kind, tools))
  }
  return views
}

async function viewOf(job: StoredJob, kind: AnyJobKind, { database, people }: Pick<Tools, 'database' | 'people'>): Promise<JobView> {
  const argument = kind.argument.safeParse(job.argument)
  const { about, page } = argument.success ? await kind.describe(argument.data, database.db) : { about: job.name, page: null }
  const { id, every, due, paused, state, attempts, pauseSeconds, progress, outcome, endedAt, doneAt, tell } = job
  return {
    ...{ id, kind: kind.kind, does: kind.does, about, page, every, due, paused, state, step: job.step?.what ?? null, attempts },
    ...{ pauseSeconds, progress, outcome, endedAt, doneAt, tell: people.nameOf(tell), stops: kind.stops },
  }
}
