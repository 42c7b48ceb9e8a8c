import { findConnector } from '../../../../connectors/connect'
import { notFound } from '../../../../http/problem'
import { operations } from '../../../../http/operations'
import { route } from '../../../../http/route'
import { rateCardJob } from '../../../../jobs/kinds/rate-card'
import { changeJob, findJob } from '../../../../stores/jobs'

/** How often a connection is asked for its rate card; 0 for only when someone asks. */
export default route(operations.connections.schedule, async ({ database, jobs, path, body }) => {
  const { name } = path
  await findConnector(database.db, name)
  const { everyHours } = body
  const job = await findJob(database.db, rateCardJob(name))
  if (!job) throw notFound('rate card of this connection', 'A connection of this kind has none.')
  await changeJob(database.db, job.id, { every: everyHours ? { count: everyHours, unit: 'hour' } : null })
  await jobs.tell()
  return { id: name }
})
