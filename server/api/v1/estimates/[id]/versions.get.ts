import { operations } from '../../../../http/operations'
import { route } from '../../../../http/route'
import { listVersions } from '../../../../stores/estimates'

/** Every state of an estimate that was saved, the newest first. */
export default route(operations.estimates.versions, async ({ database, path }) => ({ versions: await listVersions(database.db, path.id) }))
