import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.spend.makers, ({ resources, body }) => resources.makers(body))
