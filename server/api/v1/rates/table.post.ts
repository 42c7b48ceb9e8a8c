import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.sources.takeRates, ({ invoices, body }) => invoices.takeRates(body))
