import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.standingOrders.switch, ({ standingOrders, path, body }) => standingOrders.switch(path.id, body.isOn))
