import { carryOut } from '../../../use-cases/act'
import { savingsState } from '../../../use-cases/savings'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'

/** Approves and carries out one opportunity. Sending it again acts no second time. */
export default route(operations.savings.approve, async context => {
  const { id } = context.body
  await carryOut(context, id, context.who)
  return savingsState(context)
})
