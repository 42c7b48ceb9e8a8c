import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.allocation.savePlan, ({ allocation, body }) => allocation.savePlan(body))
