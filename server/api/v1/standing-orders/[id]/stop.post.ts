import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.standingOrders.stop, ({ standingOrders, path }) => standingOrders.stop(path.id))
