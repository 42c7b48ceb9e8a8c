import { spendQuestion, type SpendAnswer } from '../../../../shared/contracts/spend'
import { checkScope } from '../../../http/question'
import { body, route } from '../../../http/route'

export default route(async ({ event, cube }): Promise<SpendAnswer> => {
  const question = await body(event, spendQuestion)
  checkScope(question)
  const { revision, result } = await cube.ask('answer', question)
  return { ...result, revision }
})
