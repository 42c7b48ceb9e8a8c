import { arrive } from '../../../http/arrive'
import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.measurements.take, ({ event, measurements, query }) =>
  measurements.take(query, (...file) => arrive(event, ...file)),
)
