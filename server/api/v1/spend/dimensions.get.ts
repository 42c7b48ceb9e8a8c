import type { DimensionList } from '../../../../shared/contracts/spend'
import { route } from '../../../http/route'

export default route(async ({ cube }): Promise<DimensionList> => {
  const { revision, result } = await cube.ask('facts', undefined)
  const { columns, tags, firstDay, lastDay, currencies, charges } = result
  return { columns, tags, firstDay, lastDay, currencies, charges, revision }
})
