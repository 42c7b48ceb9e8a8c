import { findSize } from '../ratecard/find-price'
import type { RateCard } from '../ratecard/rate-card'
import { useOf, type MeterUse } from './meter-use'

/** A SKU as uplifts look at it. */
export type UsedSku = {
  use: MeterUse
  /** The size, class or tier that it is. */
  variant: string | null
  /** The operating system whose licence it is. */
  system: string | null
  /** The unit that its quantity is in; what is in another is not counted. */
  unit: string
  /** Of a machine. */
  vcpu: number | null
}

/** What every SKU of the cards is of; the first card that has it. What bears no uplift is left out. */
export function usedSkus(cards: readonly RateCard[]): Map<string, UsedSku> {
  const found = new Map<string, UsedSku>()
  for (const card of cards)
    for (const { sku, meter, variant, unit } of card.prices) {
      const use = useOf(meter)
      if (!use || found.has(sku)) continue
      const isSystem = meter === 'system-vcpu-hour'
      const vcpu = meter === 'server-hour' && variant !== null ? (findSize(card, variant)?.vcpu ?? null) : null
      found.set(sku, { use, variant: isSystem ? null : variant, system: isSystem ? variant : null, unit, vcpu })
    }
  return found
}
