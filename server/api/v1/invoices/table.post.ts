import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { saveInvoices } from '../../../stores/invoices'

/** Takes the lines of a CSV of invoices; all of them or none. */
export default route(operations.sources.takeInvoices, async ({ database, who, body: list }) => {
  await saveInvoices(database.db, list, who)
  return { invoices: list.length }
})
