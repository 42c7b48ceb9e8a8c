import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.standingOrders.edit, ({ standingOrders, path, body }) => standingOrders.edit(path.id, body))
