import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.rateCards.list, ({ rateCards }) => rateCards.list())
