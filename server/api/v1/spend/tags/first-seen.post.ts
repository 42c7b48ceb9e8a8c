import { tagDimension } from '../../../../../core/focus/star'
import { operations } from '../../../../http/operations'
import { route } from '../../../../http/route'

/** The first day on which each of some tags was reported: before, a charge without it is not untagged but too old. */
export default route(operations.spend.firstSeenTags, async ({ cube, body }) => {
  const { keys } = body
  const { revision, result } = await cube.ask('firstDays', keys.map(tagDimension))
  return { revision, tags: keys.flatMap((key, i) => (result[i] ? [{ key, firstDay: result[i] }] : [])) }
})
