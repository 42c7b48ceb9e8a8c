import { skuChange } from '../../../../shared/contracts/spend-settings'
import { body, route } from '../../../http/route'
import { readReference, saveReference } from '../../../stores/spend-reference'

/** Own words for a SKU code, before those of the rate card; null takes them back. */
export default route(async ({ event, database, cube, who }) => {
  const { sku, entry } = await body(event, skuChange)
  const { body: known } = await readReference(database.db)
  const { [sku]: _, ...others } = known.skus
  await saveReference(database.db, { ...known, skus: entry ? { ...others, [sku]: entry } : others }, who)
  await cube.refreshReference()
  return { sku }
})
