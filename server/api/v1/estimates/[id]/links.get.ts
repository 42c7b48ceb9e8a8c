import { operations } from '../../../../http/operations'
import { route } from '../../../../http/route'
import { listLinks } from '../../../../stores/links'

export default route(operations.estimates.links, async ({ database, path }) => ({ links: await listLinks(database.db, path.id) }))
