import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.allocation.unmatched, ({ allocation, path, query }) => allocation.unmatched(path.name, query))
