import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.estimates.removeUplift, ({ estimates, path }) => estimates.removeUplift(path.id))
