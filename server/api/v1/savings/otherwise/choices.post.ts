import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.savings.chooseOtherwise, ({ savings, body }) => savings.chooseOtherwise(body))
