import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.sources.redoLoad, ({ loads, path }) => loads.redo(path.id))
