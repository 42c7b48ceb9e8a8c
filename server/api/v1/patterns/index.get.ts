import { route } from '../../../http/route'
import { listPatterns } from '../../../stores/reusable'

export default route(async ({ database }) => ({ patterns: await listPatterns(database.db) }))
