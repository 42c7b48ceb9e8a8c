import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.spend.compare, ({ spend, body }) => spend.compare(body))
