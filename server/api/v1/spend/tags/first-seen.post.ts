import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.spend.firstSeenTags, ({ spend, body }) => spend.firstSeenTags(body))
