import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.sources.announce, ({ loads, body }) => loads.announce(body))
