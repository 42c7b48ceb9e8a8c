import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.savings.act, ({ savings, body }) => savings.act(body))
