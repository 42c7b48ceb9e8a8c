import { jobChange } from '../../../../../shared/contracts/jobs'
import { notFound } from '../../../../http/problem'
import { body, numberedParameter, route } from '../../../../http/route'
import { changeJob } from '../../../../stores/jobs'

/** Changes a job's rhythm, pauses it or lets it go on, or says who is to be told. */
export default route(async ({ event, database, jobs }) => {
  const id = numberedParameter(event, 'id', 'job')
  const change = await body(event, jobChange)
  if (!(await changeJob(database.db, id, change))) throw notFound('job', 'It may have been taken out already.')
  await jobs.tell()
  return { id }
})
