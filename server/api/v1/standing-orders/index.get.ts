import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.standingOrders.state, ({ standingOrders }) => standingOrders.state())
