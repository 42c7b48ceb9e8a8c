import { connectionViews } from '../../../connectors/connections'
import { route } from '../../../http/route'

/** What is connected and whether it answers. */
export default route(async ({ database }) => ({ connections: await connectionViews(database.db) }))
