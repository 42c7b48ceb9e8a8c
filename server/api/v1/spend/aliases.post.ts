import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.spend.changeAlias, ({ spendSettings, body }) => spendSettings.changeAlias(body))
