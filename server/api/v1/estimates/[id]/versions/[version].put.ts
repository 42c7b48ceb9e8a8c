import { versionName } from '../../../../../../shared/contracts/estimates'
import { body, numberedParameter, parameter, route } from '../../../../../http/route'
import { nameVersion } from '../../../../../stores/estimates'

/** Gives a saved state a name to come back to. */
export default route(async ({ event, database }) => {
  const id = parameter(event, 'id')
  await nameVersion(database.db, id, numberedParameter(event, 'version', 'version of the estimate'), (await body(event, versionName)).name)
  return { id }
})
