import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.sources.saveInvoice, ({ invoices, body }) => invoices.save([body]))
