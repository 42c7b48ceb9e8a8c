import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.connections.test, ({ connections, body }) => connections.test(body))
