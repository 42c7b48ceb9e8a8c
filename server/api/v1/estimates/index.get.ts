import { route } from '../../../http/route'
import { listEstimates } from '../../../stores/estimates'

export default route(async ({ database }) => ({ estimates: await listEstimates(database.db) }))
