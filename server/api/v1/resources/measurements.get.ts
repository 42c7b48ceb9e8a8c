import { resourceQuery, type ResourceMeasurements } from '../../../../shared/contracts/resources'
import { measuredOf } from '../../../engine/measured'
import { query, route } from '../../../http/route'

/** Asks the connected clouds what they have measured of a resource lately. */
export default route(async ({ event }): Promise<ResourceMeasurements> => ({ measured: await measuredOf(query(event, resourceQuery).id) }))
