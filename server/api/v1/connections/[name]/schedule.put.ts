import { scheduleAsked } from '../../../../../shared/contracts/reference-data'
import { findConnector } from '../../../../connectors/connect'
import { notFound } from '../../../../http/problem'
import { body, parameter, route } from '../../../../http/route'
import { rateCardJob } from '../../../../jobs/kinds/rate-card'
import { changeJob, findJob } from '../../../../stores/jobs'

/** How often a connection is asked for its rate card; 0 for only when someone asks. */
export default route(async ({ event, database, jobs }) => {
  const name = parameter(event, 'name')
  await findConnector(database.db, name)
  const { everyHours } = await body(event, scheduleAsked)
  const job = await findJob(database.db, rateCardJob(name))
  if (!job) throw notFound('rate card of this connection', 'A connection of this kind has none.')
  await changeJob(database.db, job.id, { every: everyHours ? { count: everyHours, unit: 'hour' } : null })
  await jobs.tell()
  return { id: name }
})
