import { operations } from '../../../http/operations'
import { checkScope } from '../../../http/question'
import { route } from '../../../http/route'

/** One period against another: who moved, by how much, and whether by quantity or by price. */
export default route(operations.spend.compare, ({ cube, body: question }) => {
  checkScope(question)
  return cube.reply('compare', question)
})
