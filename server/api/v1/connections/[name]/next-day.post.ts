import { findConnector, withConnector } from '../../../../connectors/connect'
import { conflict } from '../../../../http/problem'
import { operations } from '../../../../http/operations'
import { route } from '../../../../http/route'
import { bill, billJob } from '../../../../jobs/kinds/bill'

/** Lets a day pass at a simulated cloud and loads the billing period to date that it then delivers. */
export default route(operations.connections.passDay, async ({ database, jobs, who, path }) => {
  const { name } = path
  const { nextDay } = await findConnector(database.db, name)
  if (!nextDay) throw conflict('Days pass there by themselves', 'Only a simulated cloud can be told to let a day pass.')
  return withConnector(async () => {
    await nextDay()
    const { result } = await jobs.runNow(bill, billJob(name), who)
    return { now: result.now, importIds: [result.importId] }
  })
})
