import { reportOf } from '../../../use-cases/reported'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'

/** Asks the connected clouds what they say of a resource now. */
export default route(operations.spend.reportedResource, ({ database, query }) => reportOf(database.db, query.id))
