import { reconcileInvoices } from '../../../use-cases/reconcile-invoices'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'

/** Invoices, each held against its loaded charges. */
export default route(operations.sources.invoices, async services => ({ invoices: await reconcileInvoices(services) }))
