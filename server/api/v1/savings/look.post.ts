import { connectors, connectorThatCan, withConnector } from '../../../connectors/connect'
import { savingsState } from '../../../use-cases/savings'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { lookForSavings, lookJob } from '../../../jobs/kinds/look-for-savings'

/** Looks again through every connection that has what it takes. */
export default route(operations.savings.look, async context => {
  const { db } = context.database
  await connectorThatCan(db, ['inventory', 'measurements']) // says so where there is none
  for (const { name, can } of await connectors(db))
    if (can.inventory && can.measurements) await withConnector(() => context.jobs.runNow(lookForSavings, lookJob(name), context.who))
  return savingsState(context)
})
