import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.spend.dimensions, ({ spend }) => spend.dimensions())
