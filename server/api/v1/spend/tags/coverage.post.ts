import { tagDimension } from '../../../../../core/focus/star'
import { tagAsked } from '../../../../../shared/contracts/spend'
import { checkScope } from '../../../../http/question'
import { body, route } from '../../../../http/route'

/** Cost day by day by whether it has a tag, lacks it, or is from before it was reported. */
export default route(async ({ event, cube }) => {
  const { key, ...scope } = await body(event, tagAsked)
  checkScope({ ...scope, splitBy: [] })
  const { revision, result } = await cube.ask('tagCoverage', { scope, dimension: tagDimension(key) })
  return { days: result, revision }
})
