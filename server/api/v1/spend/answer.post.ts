import { spendQuestion, type SpendAnswer } from '../../../../shared/contracts/spend'
import { checkDimensions } from '../../../http/question'
import { body, route } from '../../../http/route'

export default route(async ({ event, cube }): Promise<SpendAnswer> => {
  const { limit, ...question } = await body(event, spendQuestion)
  checkDimensions([...question.splitBy, ...Object.keys(question.keep), ...Object.keys(question.leaveOut)])
  const { revision, result } = await cube.ask('answer', { ...question, ...(limit !== undefined && { limit }) })
  return { ...result, revision }
})
