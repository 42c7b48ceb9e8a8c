import { tagDimension } from '../../../../../core/focus/star'
import { checkScope } from '../../../../http/question'
import { operations } from '../../../../http/operations'
import { route } from '../../../../http/route'

/** Cost day by day by whether it has a tag, lacks it, or is from before it was reported. */
export default route(operations.spend.tagCoverage, async ({ cube, body }) => {
  const { key, ...scope } = body
  checkScope({ ...scope, splitBy: [] })
  const { revision, result } = await cube.ask('tagCoverage', { scope, dimension: tagDimension(key) })
  return { days: result, revision }
})
