import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { listUplifts } from '../../../stores/reusable'

export default route(operations.estimates.uplifts, async ({ database }) => ({ uplifts: await listUplifts(database.db) }))
