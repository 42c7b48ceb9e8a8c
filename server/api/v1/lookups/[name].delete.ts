import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.allocation.dropLookup, ({ allocation, path }) => allocation.dropLookup(path.name))
