import { resourceQuery } from '../../../../shared/contracts/resources'
import { viewResource } from '../../../engine/resource-view'
import { query, route } from '../../../http/route'

/** One resource by its id, which may hold any character: hence as a query. */
export default route(services => viewResource(services, query(services.event, resourceQuery).id))
