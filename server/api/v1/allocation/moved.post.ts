import { left } from '../../../http/left'
import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.allocation.moved, ({ allocation, event, body }) => allocation.moved(body, left(event)))
