import { addDays, daysBetween } from '../../core/time/day'
import type { PriceLine } from '../../core/ratecard/rate-card'
import type { FileCharge } from '../../demo/focus-file'
import { charge } from './charges'

/** The day after the last that a file of these charges has. */
export const END = '2026-10-29'

/** A charge a day of a resource under a line, from so many days before the end to a day (exclusive). */
export function daily(
  name: string,
  line: Pick<PriceLine, 'sku' | 'service' | 'meter' | 'unit'>,
  quantity: string,
  cost: string,
  more: FileCharge & { to?: string; from?: string } = {},
): FileCharge[] {
  const { to = END, from = addDays(END, -40), ...values } = more
  return Array.from({ length: daysBetween(from, to) }, (_, i) => {
    const day = addDays(from, i)
    const month = day.slice(0, 7)
    return charge({
      ...{ BillingPeriodStart: `${month}-01T00:00:00Z`, BillingPeriodEnd: `${addDays(`${month}-28`, 4).slice(0, 7)}-01T00:00:00Z` },
      ...{ ChargePeriodStart: `${day}T00:00:00Z`, ChargePeriodEnd: `${addDays(day, 1)}T00:00:00Z` },
      ...{ ResourceId: `id-${name}`, ResourceName: name, RegionId: 'here', ServiceName: line.service },
      ...{ SkuId: line.sku, SkuPriceId: `${line.sku}/1`, SkuMeter: line.meter },
      ...{ PricingUnit: line.unit, PricingQuantity: quantity, ConsumedUnit: line.unit, ConsumedQuantity: quantity },
      BilledCost: cost,
      ...values,
    })
  })
}
