import { planSave } from '../../../../shared/contracts/allocation'
import { body, route } from '../../../http/route'
import { savePlan } from '../../../stores/organisation'

export default route(async ({ event, database, who }) => {
  const { basedOn, plan } = await body(event, planSave)
  return { version: await savePlan(database.db, plan, basedOn, who) }
})
