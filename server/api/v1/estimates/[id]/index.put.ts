import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.estimates.save, ({ estimates, path, body }) => estimates.save(path.id, body))
