import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.spend.answer, ({ spend, body }) => spend.answer(body))
