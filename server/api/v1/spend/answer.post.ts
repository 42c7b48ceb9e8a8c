import { operations } from '../../../http/operations'
import { checkScope } from '../../../http/question'
import { route } from '../../../http/route'

export default route(operations.spend.answer, ({ cube, body: question }) => {
  checkScope(question)
  return cube.reply('answer', question)
})
