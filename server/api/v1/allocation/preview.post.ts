import { left } from '../../../http/left'
import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.allocation.preview, ({ allocation, event, body }) => allocation.preview(body, left(event)))
