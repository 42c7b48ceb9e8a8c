import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.sources.saveMapping, ({ sources, path, body }) => sources.saveMapping(path.source, body))
