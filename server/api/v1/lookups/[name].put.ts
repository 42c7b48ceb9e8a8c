import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.allocation.saveLookup, ({ allocation, path, body }) => allocation.saveLookup(path.name, body))
