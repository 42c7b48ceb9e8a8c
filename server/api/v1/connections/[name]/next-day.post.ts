import { findConnector, withConnector } from '../../../../connectors/ask'
import { parameter, route } from '../../../../http/route'
import { fetchBill } from '../../../../imports/fetch-bill'

/** Lets a day pass at a simulated cloud and loads the billing period to date that it then delivers. */
export default route(async context => {
  const name = parameter(context.event, 'name')
  const connector = findConnector(name)
  return withConnector(async () => {
    const now = await connector.nextDay()
    return { now, importIds: [await fetchBill(context, name, connector, now, context.who)] }
  })
})
