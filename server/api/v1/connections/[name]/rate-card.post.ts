import { capabilityOf, findConnector, withConnector } from '../../../../connectors/connect'
import { operations } from '../../../../http/operations'
import { route } from '../../../../http/route'
import { rateCard, rateCardJob } from '../../../../jobs/kinds/rate-card'

/** Asks a connection for the rate card it publishes, now. */
export default route(operations.connections.fetchRateCard, async ({ database, jobs, who, path }) => {
  const { name } = path
  capabilityOf(await findConnector(database.db, name), 'rate card')
  const { said, result } = await withConnector(() => jobs.runNow(rateCard, rateCardJob(name), who))
  return { ...result, said }
})
