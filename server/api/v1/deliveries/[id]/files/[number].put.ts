import { arrive } from '../../../../../http/arrive'
import { operations } from '../../../../../operations'
import { route } from '../../../../../http/route'

export default route(operations.sources.deliverFile, ({ event, loads, path }) =>
  loads.deliverFile(path.id, path.number, (...file) => arrive(event, ...file)),
)
