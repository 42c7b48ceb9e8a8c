import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.jobs.change, ({ jobs, path, body }) => jobs.change(path.id, body))
