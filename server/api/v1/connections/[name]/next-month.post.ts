import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.connections.passMonth, ({ connections, path }) => connections.pass(path.name, 'month'))
