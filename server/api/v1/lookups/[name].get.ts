import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.allocation.lookup, ({ allocation, path }) => allocation.lookup(path.name))
