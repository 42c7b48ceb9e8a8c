import { parameter, route } from '../../../http/route'
import { revokeLink } from '../../../stores/links'

export default route(async ({ event, database }) => {
  const id = parameter(event, 'id')
  await revokeLink(database.db, id)
  return { id }
})
