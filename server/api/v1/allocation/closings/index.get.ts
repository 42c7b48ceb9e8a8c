import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.allocation.closings, ({ allocation }) => allocation.closings())
