import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.connections.passWeek, ({ connections, path }) => connections.pass(path.name, 'week'))
