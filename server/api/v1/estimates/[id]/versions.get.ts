import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.estimates.versions, ({ estimates, path }) => estimates.versions(path.id))
