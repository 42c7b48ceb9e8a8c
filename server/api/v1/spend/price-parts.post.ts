import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.spend.priceParts, ({ spend, body }) => spend.priceParts(body))
