import { resourceQuery } from '../../../../shared/contracts/resources'
import { reportOf } from '../../../engine/reported'
import { query, route } from '../../../http/route'

/** Asks the connected clouds what they say of a resource now. */
export default route(({ event, database }) => reportOf(database.db, query(event, resourceQuery).id))
