import { spendQuestions } from '../../../../shared/contracts/spend'
import { checkScope } from '../../../http/question'
import { body, route } from '../../../http/route'

/** Several questions answered from one state of the data, so that their figures fit each other. */
export default route(async ({ event, cube }) => {
  const { questions } = await body(event, spendQuestions)
  questions.forEach(checkScope)
  const { revision, result } = await cube.ask('answers', questions)
  return { answers: result, revision }
})
