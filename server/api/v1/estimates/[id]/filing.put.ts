import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.estimates.file, ({ estimates, path, body }) => estimates.file(path.id, body))
