import { parameter, route } from '../../../../http/route'
import { listVersions } from '../../../../stores/estimates'

/** Every state of an estimate that was saved, the newest first. */
export default route(async ({ event, database }) => ({ versions: await listVersions(database.db, parameter(event, 'id')) }))
