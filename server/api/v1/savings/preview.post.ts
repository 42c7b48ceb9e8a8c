import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.savings.preview, ({ savings, body }) => savings.preview(body.id))
