import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.sources.removeMapping, ({ sources, path }) => sources.removeMapping(path.source))
