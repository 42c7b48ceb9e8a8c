import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.savings.bill, ({ savings }) => savings.bill())
