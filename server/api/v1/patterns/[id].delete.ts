import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.estimates.removePattern, ({ estimates, path }) => estimates.removePattern(path.id))
