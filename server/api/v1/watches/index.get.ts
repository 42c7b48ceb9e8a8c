import { route } from '../../../http/route'
import { watched } from '../../../jobs/watching'

export default route(async ({ database }) => ({ watches: await watched(database.db) }))
