import { operations } from '../../../../operations'
import { route } from '../../../../http/route'

export default route(operations.savings.revokeList, ({ savings, path }) => savings.revokeList(path.id))
