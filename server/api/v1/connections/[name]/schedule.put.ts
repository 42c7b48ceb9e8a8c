import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.connections.schedule, ({ connections, path, body }) => connections.schedule(path.name, body))
