import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.rateCards.find, ({ rateCards, path, query }) => rateCards.find(path.provider, query))
