import { route } from '../../../http/route'
import { listWatches } from '../../../stores/watches'

export default route(async ({ database }) => ({ watches: await listWatches(database.db) }))
