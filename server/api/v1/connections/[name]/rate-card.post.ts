import { fetchCard } from '../../../../jobs/rate-card-schedule'
import { parameter, route } from '../../../../http/route'
import { findConnector, withConnector } from '../../../../connectors/ask'

/** Asks a connection for the rate card it publishes, now. */
export default route(({ event, database, who }) => {
  const name = parameter(event, 'name')
  const connector = findConnector(name)
  return withConnector(() => fetchCard(database.db, name, connector, who))
})
