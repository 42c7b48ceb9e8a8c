import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { describeSkus } from '../../../stores/sku-words'

/** SKU codes in plain words. */
export default route(operations.rateCards.describe, async ({ database, body }) => ({ skus: await describeSkus(database.db, body.skus) }))
