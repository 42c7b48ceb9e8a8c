import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.sources.undoLoad, ({ loads, path, body }) => loads.undo(path.id, body))
