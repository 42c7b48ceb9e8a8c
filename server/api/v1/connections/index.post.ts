import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.connections.make, ({ connections, body }) => connections.make(body))
