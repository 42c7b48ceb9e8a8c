import { testConnection } from '../../../connectors/connections'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'

/** Asks a service whose it is and what time it has; keeps nothing. */
export default route(operations.connections.test, async ({ body }) => testConnection(body))
