import { operations } from '../../../../../operations'
import { route } from '../../../../../http/route'

export default route(operations.allocation.outlook, ({ allocation, path }) => allocation.outlook(path))
