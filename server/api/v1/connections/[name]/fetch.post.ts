import { findConnector, withConnector } from '../../../../connectors/ask'
import { parameter, route } from '../../../../http/route'
import { fetchBill } from '../../../../imports/fetch-bill'

/** Loads the billing period to date as the cloud has it now. */
export default route(async context => {
  const name = parameter(context.event, 'name')
  const connector = findConnector(name)
  return withConnector(async () => {
    const now = await connector.clock()
    return { now, importIds: [await fetchBill(context, name, connector, now, context.who)] }
  })
})
