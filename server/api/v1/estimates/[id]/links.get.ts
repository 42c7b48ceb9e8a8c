import { parameter, route } from '../../../../http/route'
import { listLinks } from '../../../../stores/links'

export default route(async ({ event, database }) => ({ links: await listLinks(database.db, parameter(event, 'id')) }))
