import { tagDimension } from '../../../../../core/focus/star'
import { tagKeysAsked } from '../../../../../shared/contracts/spend'
import { body, route } from '../../../../http/route'

/** The first day on which each of some tags was reported: before, a charge without it is not untagged but too old. */
export default route(async ({ event, cube }) => {
  const { keys } = await body(event, tagKeysAsked)
  const { revision, result } = await cube.ask('firstDays', keys.map(tagDimension))
  return { revision, tags: keys.flatMap((key, i) => (result[i] ? [{ key, firstDay: result[i] }] : [])) }
})
