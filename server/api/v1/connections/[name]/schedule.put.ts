import { scheduleAsked } from '../../../../../shared/contracts/reference-data'
import { findConnector } from '../../../../connectors/ask'
import { body, parameter, route } from '../../../../http/route'
import { setSchedule } from '../../../../stores/rate-cards'

/** How often a connection is asked for its rate card; 0 for only when someone asks. */
export default route(async ({ event, database }) => {
  const name = parameter(event, 'name')
  findConnector(name)
  const { everyHours } = await body(event, scheduleAsked)
  await setSchedule(database.db, name, everyHours)
  return { id: name }
})
