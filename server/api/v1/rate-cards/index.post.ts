import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.rateCards.take, ({ rateCards, body }) => rateCards.take(body))
