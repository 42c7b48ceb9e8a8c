import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.savings.previewThresholds, ({ savings, body }) => savings.previewThresholds(body))
