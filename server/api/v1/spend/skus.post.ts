import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.spend.changeSku, ({ spendSettings, body }) => spendSettings.changeSku(body))
