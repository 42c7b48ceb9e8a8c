import { capabilityOf, findConnector, withConnector } from '../../../../connectors/connect'
import { operations } from '../../../../http/operations'
import { route } from '../../../../http/route'
import { bill, billJob } from '../../../../jobs/kinds/bill'

/** Loads the billing period to date as the cloud has it now. */
export default route(operations.connections.fetchBill, async ({ database, jobs, who, path }) => {
  const { name } = path
  capabilityOf(await findConnector(database.db, name), 'bill')
  const { result } = await withConnector(() => jobs.runNow(bill, billJob(name), who))
  return { now: result.now, importIds: [result.importId] }
})
