import type { DimensionList } from '../../../../shared/contracts/spend'
import { operations } from '../../../http/operations'
import { route } from '../../../http/route'

export default route(operations.spend.dimensions, async ({ cube }): Promise<DimensionList> => {
  const { revision, result: facts } = await cube.ask('facts', undefined)
  return { ...facts, revision, sources: facts.sources.map(({ missing: _, firstDay: __, ...source }) => source) }
})
