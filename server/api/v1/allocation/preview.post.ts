import { settleMonth } from '../../../engine/settle-month'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'

/** What a month would look like under a plan that is not saved. */
export default route(operations.allocation.preview, async ({ cube, body }) => {
  const { plan, ...question } = body
  return { ...(await settleMonth(cube, plan, question)), version: 0 }
})
