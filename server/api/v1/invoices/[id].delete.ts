import { notFound } from '../../../http/problem'
import { numberedParameter, route } from '../../../http/route'
import { removeInvoice } from '../../../stores/invoices'

export default route(async ({ event, database }) => {
  const id = numberedParameter(event, 'id', 'invoice')
  if (!Number.isInteger(id) || !(await removeInvoice(database.db, id))) throw notFound('invoice', 'It may have been taken out already.')
  return { id }
})
