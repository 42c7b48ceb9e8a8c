import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.spend.used, ({ spend, body }) => spend.used(body))
