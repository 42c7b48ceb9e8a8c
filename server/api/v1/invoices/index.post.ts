import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { saveInvoices } from '../../../stores/invoices'

export default route(operations.sources.saveInvoice, async ({ database, who, body }) => {
  await saveInvoices(database.db, [body], who)
  return { invoices: 1 }
})
