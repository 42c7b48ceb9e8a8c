import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.sources.previewMapping, ({ sources, body }) => sources.previewMapping(body))
