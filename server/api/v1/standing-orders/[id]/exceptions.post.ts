import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.standingOrders.except, ({ standingOrders, path, body }) => standingOrders.except(path.id, body))
