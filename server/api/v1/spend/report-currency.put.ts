import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.spend.saveReportCurrency, ({ spendSettings, body }) => spendSettings.saveReportCurrency(body))
