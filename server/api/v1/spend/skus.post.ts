import { operations } from '../../../http/operations'
import { route } from '../../../http/route'
import { changeReference } from '../../../stores/spend-reference'

/** Own words for a SKU code, before those of the rate card; null takes them back. */
export default route(operations.spend.changeSku, async ({ database, cube, who, body }) => {
  const { sku, entry } = body
  await changeReference(database.db, who, known => {
    const { [sku]: _, ...others } = known.skus
    return { body: { ...known, skus: entry ? { ...others, [sku]: entry } : others }, result: undefined }
  })
  await cube.refreshReference()
  return { sku }
})
