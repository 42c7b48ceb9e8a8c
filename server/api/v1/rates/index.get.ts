import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { listRates } from '../../../stores/rates'

export default route(operations.sources.rates, async ({ database }) => ({ rates: await listRates(database.db) }))
