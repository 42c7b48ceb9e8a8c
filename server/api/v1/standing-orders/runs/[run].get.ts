import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.standingOrders.runWhole, ({ standingOrders, path }) => standingOrders.runWhole(path.run))
