import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.spend.lateTags, ({ spend, body }) => spend.lateTags(body))
