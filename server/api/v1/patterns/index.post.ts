import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.estimates.savePattern, ({ estimates, body }) => estimates.savePattern(body))
