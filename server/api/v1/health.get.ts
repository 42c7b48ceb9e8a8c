import { operations } from '../../operations'
import { route } from '../../http/route'

export default route(operations.server.health, async ({ revision }) => ({ status: 'ready', revision: await revision() }))
