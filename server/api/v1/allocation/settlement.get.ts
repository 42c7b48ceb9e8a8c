import { settleMonth } from '../../../use-cases/settle-month'
import { notFound } from '../../../http/problem'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { currentPlan } from '../../../stores/organisation'

/** A billing month put on cost centres by the saved plan. */
export default route(operations.allocation.settlement, async ({ cube, database, query: question }) => {
  const saved = await currentPlan(database.db)
  if (!saved) throw notFound('plan', 'No cost centres are loaded yet. Drop a file with cost centres under Sources.')
  return settleMonth(cube, saved, question)
})
