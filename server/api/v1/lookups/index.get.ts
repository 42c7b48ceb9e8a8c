import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.allocation.lookups, ({ allocation }) => allocation.lookups())
