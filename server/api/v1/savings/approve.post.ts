import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.savings.approve, ({ savings, body }) => savings.approve(body.id))
