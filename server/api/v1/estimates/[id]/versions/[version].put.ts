import { operations } from '../../../../../operations'
import { route } from '../../../../../http/route'

export default route(operations.estimates.nameVersion, ({ estimates, path, body }) => estimates.nameVersion(path.id, path.version, body))
