import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.estimates.revokeLink, ({ estimates, path }) => estimates.revokeLink(path.id))
