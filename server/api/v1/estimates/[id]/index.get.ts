import { operations } from '../../../../http/operations'
import { route } from '../../../../http/route'
import { mustFindEstimate } from '../../../../stores/estimates'

/** An estimate as it was saved last, or in the `version` that is asked for. */
export default route(operations.estimates.find, ({ database, path, query }) => mustFindEstimate(database.db, path.id, query.version))
