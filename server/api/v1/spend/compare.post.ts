import type { SpendComparison } from '../../../../shared/contracts/spend'
import { checkScope } from '../../../http/question'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'

/** One period against another: who moved, by how much, and whether by quantity or by price. */
export default route(operations.spend.compare, async ({ cube, body: question }): Promise<SpendComparison> => {
  checkScope(question)
  const { revision, result } = await cube.ask('compare', question)
  return { ...result, revision }
})
