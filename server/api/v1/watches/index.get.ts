import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.sources.watches, ({ sources }) => sources.watches())
