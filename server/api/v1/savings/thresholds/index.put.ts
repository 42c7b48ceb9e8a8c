import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.savings.setThresholds, ({ savings, body }) => savings.setThresholds(body))
