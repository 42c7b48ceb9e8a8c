import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.spend.linesSize, ({ spend, body }) => spend.linesSize(body))
