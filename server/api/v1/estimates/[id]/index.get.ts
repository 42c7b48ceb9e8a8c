import { versionAsked } from '../../../../../shared/contracts/estimates'
import { parameter, query, route } from '../../../../http/route'
import { mustFindEstimate } from '../../../../stores/estimates'

/** An estimate as it was saved last, or in the `version` that is asked for. */
export default route(({ event, database }) => mustFindEstimate(database.db, parameter(event, 'id'), query(event, versionAsked).version))
