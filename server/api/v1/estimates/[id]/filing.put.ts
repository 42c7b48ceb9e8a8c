import { operations } from '../../../../http/operations'
import { route } from '../../../../http/route'
import { fileEstimate } from '../../../../stores/estimates'

/** Files an estimate in a folder, puts it away or brings it back. */
export default route(operations.estimates.file, async ({ database, who, path, body }) => {
  const { id } = path
  await fileEstimate(database.db, id, body, who)
  return { id }
})
