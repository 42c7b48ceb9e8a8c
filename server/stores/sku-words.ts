import type { SkuWords } from '../../shared/contracts/reference-data'
import type { Db } from '../db/database'
import { skuMeanings } from './spend-reference'

/** What SKU codes mean, in plain words, and whether they are charged for existing or for use. Unknown codes are left out. */
export async function describeSkus(db: Db, skus: readonly string[]): Promise<Record<string, SkuWords>> {
  const meanings = await skuMeanings(db)
  return Object.fromEntries(
    skus.flatMap(sku => {
      const meaning = meanings.get(sku)
      return meaning ? [[sku, meaning]] : []
    }),
  )
}
