import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { savePlan } from '../../../stores/organisation'

export default route(operations.allocation.savePlan, async ({ database, cube, who, body }) => {
  const { basedOn, plan } = body
  const version = await savePlan(database.db, plan, basedOn, who)
  await cube.refreshReference()
  return { version }
})
