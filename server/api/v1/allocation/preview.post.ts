import { settleMonth } from '../../../use-cases/settle-month'
import { left } from '../../../http/left'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'

/** What a month would look like under a plan that is not saved; given up when whoever asked has left, or asked anew. */
export default route(operations.allocation.preview, ({ cube, event, body }) => {
  const { plan, ...question } = body
  return settleMonth(cube, { plan, version: 0 }, question, left(event))
})
