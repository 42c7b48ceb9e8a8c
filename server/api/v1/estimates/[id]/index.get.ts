import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.estimates.find, ({ estimates, path, query }) => estimates.find(path.id, query.version))
