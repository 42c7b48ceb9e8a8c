import { route } from '../../../http/route'
import { listSchedules } from '../../../stores/rate-cards'

export default route(async ({ database }) => ({ schedules: await listSchedules(database.db) }))
