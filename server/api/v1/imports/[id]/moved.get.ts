import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.sources.movedLines, ({ loads, path }) => loads.moved(path.id))
