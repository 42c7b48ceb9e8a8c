import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.spend.reference, ({ spendSettings }) => spendSettings.state())
