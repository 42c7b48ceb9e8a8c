import { arrive } from '../../../http/arrive'
import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.sources.importFile, ({ event, loads, query }) =>
  loads.importFile(query, (...file) => arrive(event, ...file)),
)
