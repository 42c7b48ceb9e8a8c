import { viewResource } from '../../../use-cases/resource-view'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'

/** One resource by its id, which may hold any character: hence as a query. */
export default route(operations.spend.resource, services => viewResource(services, services.query.id))
