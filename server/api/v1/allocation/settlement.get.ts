import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.allocation.settlement, ({ allocation, query }) => allocation.settlement(query))
