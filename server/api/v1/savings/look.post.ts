import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.savings.look, ({ savings }) => savings.look())
