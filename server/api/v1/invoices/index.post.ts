import { invoiceInput } from '../../../../shared/contracts/spend-settings'
import { body, route } from '../../../http/route'
import { saveInvoices } from '../../../stores/invoices'

export default route(async ({ event, database, who }) => {
  await saveInvoices(database.db, [await body(event, invoiceInput)], who)
  return { invoices: 1 }
})
