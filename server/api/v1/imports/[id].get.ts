import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.sources.load, ({ loads, path }) => loads.status(path.id))
