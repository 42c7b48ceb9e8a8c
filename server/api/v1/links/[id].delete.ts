import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { revokeLink } from '../../../stores/links'

export default route(operations.estimates.revokeLink, async ({ database, path }) => {
  const { id } = path
  await revokeLink(database.db, id)
  return { id }
})
