import { route } from '../../../http/route'
import { listRates } from '../../../stores/rates'

export default route(async ({ database }) => ({ rates: await listRates(database.db) }))
