import { operations } from '../../../../http/operations'
import { checkScope } from '../../../../http/question'
import { route } from '../../../../http/route'

/** Cost day by day by whether it has a tag, lacks it, or is from before it was reported. */
export default route(operations.spend.tagCoverage, ({ cube, body: asked }) => {
  checkScope({ ...asked, splitBy: [] })
  return cube.reply('tagDays', asked)
})
