import { connectionViews } from '../../../connectors/connections'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'

/** What is connected and whether it answers. */
export default route(operations.connections.list, async ({ database }) => ({ connections: await connectionViews(database.db) }))
