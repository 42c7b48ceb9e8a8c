import { tagDimension } from '../../../../../core/focus/star'
import { checkScope } from '../../../../http/question'
import { operations } from '../../../../http/operations'
import { route } from '../../../../http/route'

/** Sources whose charges are from before they reported a tag. */
export default route(operations.spend.lateTags, async ({ cube, body }) => {
  const { key, ...scope } = body
  checkScope({ ...scope, splitBy: [] })
  const { revision, result } = await cube.ask('lateReports', { scope, dimension: tagDimension(key) })
  return { late: result, revision }
})
