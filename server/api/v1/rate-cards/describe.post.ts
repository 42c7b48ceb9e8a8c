import { operations } from '../../../http/operations'
import { route } from '../../../http/route'

/** SKU codes in plain words. */
export default route(operations.rateCards.describe, ({ cube, body: { skus } }) => cube.reply('skus', skus))
