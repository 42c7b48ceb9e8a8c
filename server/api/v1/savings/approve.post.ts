import { carryOut } from '../../../engine/act'
import { savingsState } from '../../../engine/savings'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'

/** Approves and carries out one opportunity. Sending it again acts no second time. */
export default route(operations.savings.approve, async context => {
  const { id } = context.body
  await carryOut(context, id, context.who)
  return savingsState(context)
})
