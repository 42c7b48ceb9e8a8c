import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.connections.fetchBill, ({ connections, path }) => connections.fetchBill(path.name))
