import { operations } from '../../../../../operations'
import { route } from '../../../../../http/route'

export default route(operations.savings.linkToList, ({ savings, path }) => savings.linkToList(path.id))
