import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.estimates.uplifts, ({ estimates }) => estimates.uplifts())
