import { reconcileInvoices } from '../../../engine/reconcile-invoices'
import { route } from '../../../http/route'

/** Invoices, each held against its loaded charges. */
export default route(async services => ({ invoices: await reconcileInvoices(services) }))
