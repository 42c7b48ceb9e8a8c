import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.sources.list, ({ sources }) => sources.list())
