import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.sources.removeInvoice, ({ invoices, path }) => invoices.remove(path.id))
