import { operations } from '../../../http/operations'
import { route } from '../../../http/route'

export default route(operations.estimates.revokeLink, ({ estimates, path }) => estimates.revokeLink(path.id))
