import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.standingOrders.drop, ({ standingOrders, path }) => standingOrders.drop(path.id))
