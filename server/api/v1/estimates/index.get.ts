import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { listEstimates } from '../../../stores/estimates'

export default route(operations.estimates.list, async ({ database }) => ({ estimates: await listEstimates(database.db) }))
