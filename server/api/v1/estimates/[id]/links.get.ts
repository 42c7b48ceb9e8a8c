import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.estimates.links, ({ estimates, path }) => estimates.links(path.id))
