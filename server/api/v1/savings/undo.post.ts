import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.savings.undo, ({ savings, body }) => savings.undo(body.id))
