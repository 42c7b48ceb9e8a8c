import { planPreview } from '../../../../shared/contracts/allocation'
import { settleMonth } from '../../../engine/settle-month'
import { body, route } from '../../../http/route'

/** What a month would look like under a plan that is not saved. */
export default route(async ({ event, cube }) => {
  const { plan, ...question } = await body(event, planPreview)
  return { ...(await settleMonth(cube, plan, question)), version: 0 }
})
