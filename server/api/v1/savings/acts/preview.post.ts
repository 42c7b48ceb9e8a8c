import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.savings.previewActs, ({ savings, body }) => savings.previewActs(body))
