import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.jobs.stop, ({ jobs, path }) => jobs.stop(path.id))
