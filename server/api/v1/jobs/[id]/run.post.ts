import { operations } from '../../../../http/operations'
import { route } from '../../../../http/route'

/** Runs a job now, whether it is due or not; what comes of it stands in its row. */
export default route(operations.jobs.run, async ({ jobs, who, path }) => {
  const { id } = path
  await jobs.startNow(id, who)
  return { id }
})
