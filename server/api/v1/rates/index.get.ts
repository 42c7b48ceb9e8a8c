import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.sources.rates, ({ invoices }) => invoices.rates())
