import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.savings.setApprovalLimit, ({ savings, body }) => savings.setApprovalLimit(body.above))
