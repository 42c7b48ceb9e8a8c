import { operations } from '../../../../../operations'
import { route } from '../../../../../http/route'

export default route(operations.allocation.changes, ({ allocation, path }) => allocation.changes(path))
