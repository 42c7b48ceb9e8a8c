import { operations } from '../../../operations'
import { route } from '../../../http/route'

export default route(operations.spend.reportedResource, ({ resources, query }) => resources.reported(query.id))
