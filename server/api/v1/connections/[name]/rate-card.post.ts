import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.connections.fetchRateCard, ({ connections, path }) => connections.fetchRateCard(path.name))
