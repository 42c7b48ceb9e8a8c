import { operations } from '../../operations'
import { route } from '../../http/route'

export default route(operations.spend.jump, ({ jump, query }) => jump(query.q))
