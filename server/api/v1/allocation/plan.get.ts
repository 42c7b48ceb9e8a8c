import { notFound } from '../../../http/problem'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { currentPlan } from '../../../stores/organisation'

export default route(operations.allocation.plan, async ({ database }) => {
  const saved = await currentPlan(database.db)
  if (!saved) throw notFound('plan', 'No cost centres are loaded yet. Drop a file with cost centres under Sources.')
  return saved
})
