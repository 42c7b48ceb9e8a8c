import { route } from '../../../http/route'
import { listUplifts } from '../../../stores/reusable'

export default route(async ({ database }) => ({ uplifts: await listUplifts(database.db) }))
