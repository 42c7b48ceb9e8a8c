import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.standingOrders.choose, ({ standingOrders, path, body }) =>
  standingOrders.choose(path.id, body.resourceId, body.person),
)
