import { numberedParameter, route } from '../../../../http/route'

/** Runs a job now, whether it is due or not; what comes of it stands in its row. */
export default route(async ({ event, jobs, who }) => {
  const id = numberedParameter(event, 'id', 'job')
  await jobs.startNow(id, who)
  return { id }
})
