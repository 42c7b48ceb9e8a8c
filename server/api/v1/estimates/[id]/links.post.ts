import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.estimates.makeLink, ({ estimates, path, body }) => estimates.makeLink(path.id, body))
