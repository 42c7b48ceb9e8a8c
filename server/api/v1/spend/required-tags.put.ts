import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.spend.requireTags, ({ spendSettings, body }) => spendSettings.requireTags(body))
