import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.jobs.run, ({ jobs, path }) => jobs.run(path.id))
