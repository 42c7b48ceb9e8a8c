import { z } from 'zod'
import { carryOut } from '../../../engine/act'
import { savingsState } from '../../../engine/savings'
import { body, route } from '../../../http/route'

/** Approves and carries out one opportunity. Sending it again acts no second time. */
export default route(async context => {
  const { id } = await body(context.event, z.object({ id: z.string() }))
  await carryOut(context, id, context.who)
  return savingsState(context)
})
