import { fetchCard } from '../../../../jobs/rate-card-schedule'
import { parameter, route } from '../../../../http/route'
import { findConnector, withConnector } from '../../../../connectors/ask'

/** Asks a connection for the rate card it publishes, now. */
export default route(services => {
  const name = parameter(services.event, 'name')
  const connector = findConnector(name)
  return withConnector(() => fetchCard(services, name, connector, services.who))
})
