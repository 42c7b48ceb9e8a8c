import { chargedFor, describeLine } from '../../core/ratecard/describe'
import { findSku } from '../../core/ratecard/rate-card'
import type { SkuWords } from '../../shared/contracts/reference-data'
import type { Db } from '../db/client'
import { findRateCard, listProviders } from './rate-cards'

/** What SKU codes mean, from the newest rate cards: in plain words, and whether they are charged for existing or for use. Unknown codes are left out. */
export async function describeSkus(db: Db, skus: readonly string[]): Promise<Record<string, SkuWords>> {
  const found: Record<string, SkuWords> = {}
  for (const provider of await listProviders(db)) {
    const card = await findRateCard(db, provider)
    for (const sku of card ? skus : []) {
      const line = findSku(card!, sku)
      if (line && !(sku in found)) found[sku] = { words: describeLine(line, card!), charged: chargedFor(line) }
    }
  }
  return found
}
