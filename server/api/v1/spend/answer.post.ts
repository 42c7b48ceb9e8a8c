import type { SpendAnswer } from '../../../../shared/contracts/spend'
import { checkScope } from '../../../http/question'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'

export default route(operations.spend.answer, async ({ cube, body: question }): Promise<SpendAnswer> => {
  checkScope(question)
  const { revision, result } = await cube.ask('answer', question)
  return { ...result, revision }
})
