import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.sources.stopLoad, ({ loads, path }) => loads.stop(path.id))
