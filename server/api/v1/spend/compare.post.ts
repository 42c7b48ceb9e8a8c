import { compareQuestion, type SpendComparison } from '../../../../shared/contracts/spend'
import { checkScope } from '../../../http/question'
import { body, route } from '../../../http/route'

/** One period against another: who moved, by how much, and whether by quantity or by price. */
export default route(async ({ event, cube }): Promise<SpendComparison> => {
  const question = await body(event, compareQuestion)
  checkScope(question)
  const { revision, result } = await cube.ask('compare', question)
  return { ...result, revision }
})
