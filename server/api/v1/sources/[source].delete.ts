import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.sources.remove, ({ loads, path }) => loads.takeOut(path.source))
