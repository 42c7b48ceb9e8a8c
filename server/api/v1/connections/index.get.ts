import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.connections.list, ({ connections }) => connections.list())
