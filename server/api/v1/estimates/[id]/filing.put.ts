import { filing } from '../../../../../shared/contracts/estimates'
import { body, parameter, route } from '../../../../http/route'
import { fileEstimate } from '../../../../stores/estimates'

/** Files an estimate in a folder, puts it away or brings it back. */
export default route(async ({ event, database, who }) => {
  const id = parameter(event, 'id')
  await fileEstimate(database.db, id, await body(event, filing), who)
  return { id }
})
