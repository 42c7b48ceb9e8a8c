import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.savings.decide, ({ savings, body }) => savings.decide(body))
