import { operations } from '../../../../../http/operations'
import { route } from '../../../../../http/route'
import { nameVersion } from '../../../../../stores/estimates'

/** Gives a saved state a name to come back to. */
export default route(operations.estimates.nameVersion, async ({ database, path, body }) => {
  const { id } = path
  await nameVersion(database.db, id, path.version, body.name)
  return { id }
})
