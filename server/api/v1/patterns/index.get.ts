import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.estimates.patterns, ({ estimates }) => estimates.patterns())
