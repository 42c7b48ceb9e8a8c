import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.connections.passDay, ({ connections, path }) => connections.pass(path.name, 'day'))
