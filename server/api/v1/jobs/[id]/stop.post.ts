import { conflict, notFound } from '../../../../http/problem'
import { operations } from '../../../../http/operations'
import { route } from '../../../../http/route'
import { findJobById } from '../../../../stores/jobs'

/** Asks a job to stop, whichever process runs it. */
export default route(operations.jobs.stop, async ({ database, jobs, path }) => {
  const { id } = path
  const job = await findJobById(database.db, id)
  if (!job) throw notFound('job', 'It may have been taken out already.')
  if (!(await jobs.stop(job.name))) throw conflict('It has ended', 'There is nothing to stop.')
  return { id }
})
