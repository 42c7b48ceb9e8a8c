import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.connections.remove, ({ connections, path }) => connections.remove(path.name))
