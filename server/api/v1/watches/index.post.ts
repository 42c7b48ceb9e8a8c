import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.sources.watch, ({ sources, body }) => sources.watch(body))
