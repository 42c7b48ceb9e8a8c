import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.allocation.plan, ({ allocation, query }) => allocation.plan(query))
