import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { savePlan } from '../../../stores/organisation'

export default route(operations.allocation.savePlan, async ({ database, who, body }) => {
  const { basedOn, plan } = body
  return { version: await savePlan(database.db, plan, basedOn, who) }
})
