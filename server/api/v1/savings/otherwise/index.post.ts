import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.savings.otherwise, ({ savings, body }) => savings.otherwise(body))
