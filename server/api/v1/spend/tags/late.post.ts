import { operations } from '../../../../http/operations'
import { checkScope } from '../../../../http/question'
import { route } from '../../../../http/route'

/** Sources whose charges are from before they reported a tag. */
export default route(operations.spend.lateTags, ({ cube, body: asked }) => {
  checkScope({ ...asked, splitBy: [] })
  return cube.reply('lateTags', asked)
})
