import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.savings.rules, ({ savings }) => savings.rules())
