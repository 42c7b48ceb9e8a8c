import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.spend.saveAccountTree, ({ spendSettings, body }) => spendSettings.saveAccountTree(body))
