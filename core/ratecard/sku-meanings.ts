import { chargedFor, describeLine } from './describe'
import type { Charged } from './meters'
import type { RateCard } from './rate-card'

/** A SKU code in plain words, and whether it is charged for existing or for use. */
export type SkuMeaning = { words: string; charged: Charged }

/** What every SKU code means: own words first, then the cards in their order. */
export function skuMeanings(
  cards: readonly RateCard[],
  own: Readonly<Record<string, { words: string; charged?: Charged | undefined }>>,
): Map<string, SkuMeaning> {
  const found = new Map<string, SkuMeaning>()
  for (const card of cards)
    for (const line of card.prices)
      if (!found.has(line.sku)) found.set(line.sku, { words: describeLine(line, card), charged: chargedFor(line) })
  for (const [sku, { words, charged }] of Object.entries(own))
    found.set(sku, { words, charged: charged ?? found.get(sku)?.charged ?? 'use' })
  return found
}
