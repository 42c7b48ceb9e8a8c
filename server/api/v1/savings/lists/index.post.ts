import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.savings.makeLists, ({ savings, body }) => savings.makeLists(body))
