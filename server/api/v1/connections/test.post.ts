import { connectionTest } from '../../../../shared/contracts/connections'
import { testConnection } from '../../../connectors/connections'
import { body, route } from '../../../http/route'

/** Asks a service whose it is and what time it has; keeps nothing. */
export default route(async ({ event }) => testConnection(await body(event, connectionTest)))
