import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.savings.state, ({ savings }) => savings.state())
