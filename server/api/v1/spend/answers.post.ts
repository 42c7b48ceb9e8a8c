import { operations } from '../../../http/operations'
import { checkScope } from '../../../http/question'
import { route } from '../../../http/route'

/** Several questions answered from one state of the data, so that their figures fit each other. */
export default route(operations.spend.answers, ({ cube, body: { questions, packed } }) => {
  questions.forEach(checkScope)
  return packed ? cube.reply('packedAnswers', questions) : cube.reply('answers', questions)
})
