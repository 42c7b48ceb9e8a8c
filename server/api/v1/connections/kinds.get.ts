import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.connections.kinds, ({ connections }) => connections.kinds())
