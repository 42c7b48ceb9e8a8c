import { skusAsked } from '../../../../shared/contracts/reference-data'
import { body, route } from '../../../http/route'
import { describeSkus } from '../../../stores/sku-words'

/** SKU codes in plain words. */
export default route(async ({ event, database }) => ({ skus: await describeSkus(database.db, (await body(event, skusAsked)).skus) }))
