import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.savings.previewRule, ({ savings, body }) => savings.previewRule(body))
