import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.connections.change, ({ connections, path, body }) => connections.change(path.name, body))
