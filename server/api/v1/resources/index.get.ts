import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.spend.resource, ({ resources, query }) => resources.view(query.id))
