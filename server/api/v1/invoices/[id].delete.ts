import { notFound } from '../../../http/problem'
import { parameter, route } from '../../../http/route'
import { removeInvoice } from '../../../stores/invoices'

export default route(async ({ event, database }) => {
  const id = Number(parameter(event, 'id'))
  if (!Number.isInteger(id) || !(await removeInvoice(database.db, id))) throw notFound('invoice', 'It may have been taken out already.')
  return { id }
})
