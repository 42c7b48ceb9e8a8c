import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.standingOrders.run, ({ standingOrders, path, body }) => standingOrders.run(path.id, body))
