import { notFound } from '../../../http/problem'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { removeInvoice } from '../../../stores/invoices'

export default route(operations.sources.removeInvoice, async ({ database, path }) => {
  const { id } = path
  if (!Number.isInteger(id) || !(await removeInvoice(database.db, id))) throw notFound('invoice', 'It may have been taken out already.')
  return { id }
})
