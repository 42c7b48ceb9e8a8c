import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.standingOrders.make, ({ standingOrders, body }) => standingOrders.make(body))
