import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { listPatterns } from '../../../stores/reusable'

export default route(operations.estimates.patterns, async ({ database }) => ({ patterns: await listPatterns(database.db) }))
