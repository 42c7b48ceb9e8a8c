import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.savings.addRule, ({ savings, body }) => savings.addRule(body))
