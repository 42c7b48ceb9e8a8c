import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.estimates.saveUplift, ({ estimates, body }) => estimates.saveUplift(body))
