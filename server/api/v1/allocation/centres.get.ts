import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.allocation.centres, ({ allocation }) => allocation.centres())
