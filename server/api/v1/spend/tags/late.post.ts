import { tagDimension } from '../../../../../core/focus/star'
import { tagAsked } from '../../../../../shared/contracts/spend'
import { checkScope } from '../../../../http/question'
import { body, route } from '../../../../http/route'

/** Sources whose charges are from before they reported a tag. */
export default route(async ({ event, cube }) => {
  const { key, ...scope } = await body(event, tagAsked)
  checkScope({ ...scope, splitBy: [] })
  const { revision, result } = await cube.ask('lateReports', { scope, dimension: tagDimension(key) })
  return { late: result, revision }
})
