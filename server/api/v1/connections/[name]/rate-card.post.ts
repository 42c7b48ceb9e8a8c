import { capabilityOf, findConnector, withConnector } from '../../../../connectors/connect'
import { parameter, route } from '../../../../http/route'
import { rateCard, rateCardJob } from '../../../../jobs/kinds/rate-card'

/** Asks a connection for the rate card it publishes, now. */
export default route(async ({ event, database, jobs, who }) => {
  const name = parameter(event, 'name')
  capabilityOf(await findConnector(database.db, name), 'rate card')
  const { said, result } = await withConnector(() => jobs.runNow(rateCard, rateCardJob(name), who))
  return { ...result, said }
})
