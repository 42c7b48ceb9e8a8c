import { z } from 'zod'
import { parameter, query, route } from '../../../../http/route'
import { mustFindEstimate } from '../../../../stores/estimates'

const asked = z.object({ version: z.coerce.number().int().positive().optional() })

/** An estimate as it was saved last, or in the `version` that is asked for. */
export default route(({ event, database }) => mustFindEstimate(database.db, parameter(event, 'id'), query(event, asked).version))
