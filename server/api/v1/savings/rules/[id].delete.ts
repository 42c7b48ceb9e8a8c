import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.savings.removeRule, ({ savings, path }) => savings.removeRule(path.id))
