import { notFound } from '../../../../http/problem'
import { operations } from '../../../../http/operations'
import { route } from '../../../../http/route'
import { changeJob } from '../../../../stores/jobs'

/** Changes a job's rhythm, pauses it or lets it go on, or says who is to be told. */
export default route(operations.jobs.change, async ({ database, jobs, path, body: change }) => {
  const { id } = path
  if (!(await changeJob(database.db, id, change))) throw notFound('job', 'It may have been taken out already.')
  await jobs.tell()
  return { id }
})
