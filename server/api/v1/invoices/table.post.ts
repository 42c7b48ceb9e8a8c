import { invoiceTable } from '../../../../shared/contracts/spend-settings'
import { fileBody } from '../../../http/read-json'
import { body, route } from '../../../http/route'
import { readInvoices, saveInvoices } from '../../../stores/invoices'

/** Takes the lines of a CSV of invoices; all of them or none. */
export default route(async ({ event, database, who }) => {
  const { lines } = await body(event, invoiceTable, fileBody)
  const list = readInvoices(lines)
  await saveInvoices(database.db, list, who)
  return { invoices: list.length }
})
