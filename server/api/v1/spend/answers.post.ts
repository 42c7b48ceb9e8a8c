import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.spend.answers, ({ spend, body }) => spend.answers(body))
