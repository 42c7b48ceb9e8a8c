import { capabilityOf, findConnector, withConnector } from '../../../../connectors/connect'
import { parameter, route } from '../../../../http/route'
import { bill, billJob } from '../../../../jobs/kinds/bill'

/** Loads the billing period to date as the cloud has it now. */
export default route(async ({ event, database, jobs, who }) => {
  const name = parameter(event, 'name')
  capabilityOf(await findConnector(database.db, name), 'bill')
  const { result } = await withConnector(() => jobs.runNow(bill, billJob(name), who))
  return { now: result.now, importIds: [result.importId] }
})
