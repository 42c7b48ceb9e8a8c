import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.jobs.list, ({ jobs }) => jobs.list())
