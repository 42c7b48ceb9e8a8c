import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.rateCards.takeTable, ({ rateCards, body }) => rateCards.take(body))
