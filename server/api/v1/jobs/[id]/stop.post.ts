import { conflict, notFound } from '../../../../http/problem'
import { numberedParameter, route } from '../../../../http/route'
import { findJobById } from '../../../../stores/jobs'

/** Asks a job to stop, whichever process runs it. */
export default route(async ({ event, database, jobs }) => {
  const id = numberedParameter(event, 'id', 'job')
  const job = await findJobById(database.db, id)
  if (!job) throw notFound('job', 'It may have been taken out already.')
  if (!(await jobs.stop(job.name))) throw conflict('It has ended', 'There is nothing to stop.')
  return { id }
})
