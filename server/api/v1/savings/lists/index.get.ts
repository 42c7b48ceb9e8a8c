import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.savings.lists, ({ savings }) => savings.lists())
