import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.sources.mapping, ({ sources, path }) => sources.mapping(path.source))
