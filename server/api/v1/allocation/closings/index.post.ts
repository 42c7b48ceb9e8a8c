import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.allocation.close, ({ allocation, body }) => allocation.close(body))
