import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.connections.schedules, ({ connections }) => connections.schedules())
