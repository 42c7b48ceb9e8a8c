import { estimateId, estimateSave } from '../../../../../shared/contracts/estimates'
import { body, parameter, route } from '../../../../http/route'
import { saveEstimate } from '../../../../stores/estimates'

export default route(async ({ event, database, who }) => {
  const id = estimateId.parse(parameter(event, 'id'))
  const { basedOn, estimate, name } = await body(event, estimateSave)
  return { id, version: await saveEstimate(database.db, id, basedOn, estimate, who, name) }
})
