import { operations } from '../../../../http/operations'
import { route } from '../../../../http/route'
import { saveEstimate } from '../../../../stores/estimates'

export default route(operations.estimates.save, async ({ database, who, path, body }) => {
  const { id } = path
  const { basedOn, estimate, name } = body
  return { id, version: await saveEstimate(database.db, id, basedOn, estimate, who, name) }
})
