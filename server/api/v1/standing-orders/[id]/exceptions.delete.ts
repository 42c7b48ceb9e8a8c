import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.standingOrders.takeException, ({ standingOrders, path, query }) =>
  standingOrders.takeException(path.id, query.resource),
)
