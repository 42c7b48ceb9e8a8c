import { operations } from '../../../../http/operations'
import { route } from '../../../../http/route'

/** The first day on which each of some tags was reported: before, a charge without it is not untagged but too old. */
export default route(operations.spend.firstSeenTags, ({ cube, body: { keys } }) => cube.reply('firstSeen', keys))
