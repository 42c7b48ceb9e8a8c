import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.rateCards.describe, ({ rateCards, body }) => rateCards.describe(body.skus))
