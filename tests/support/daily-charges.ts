import type { PlainCharge } from './random-charges'
import { oneCharge } from './random-charges'
import { addDays, daysBetween } from '../../core/time/day'
import type { PriceLine, RateCard } from '../../core/ratecard/rate-card'

/** The day after the last that a bill of these charges has. */
export const END = '2026-09-29'

const unitOf: Partial<Record<string, PriceLine['unit']>> = { hour: 'Hours', month: 'GB-Months', gb: 'GB', '1000': '1000 Requests' }

/** A price line of a card for detectors; the unit follows from how the meter ends. */
export const priceLine = (meter: string, variant: string | null, price: string, more: Partial<PriceLine> = {}): PriceLine => ({
  sku: `${meter}/${variant ?? ''}`,
  service: `S ${meter.split('-')[0]}`,
  meter,
  variant,
  region: 'here',
  unit: meter === 'disk-iops-month' ? 'IOPS-Months' : unitOf[meter.split('-').at(-1)!]!,
  tiering: 'graduated',
  tiers: [{ from: '0', price }],
  ...more,
})

export const cardOf = (prices: PriceLine[], more: Partial<RateCard> = {}): RateCard => ({
  ...{ provider: 'P', currency: 'EUR', validFrom: '2026-01-01', regions: [{ id: 'here', name: 'Here' }], serverSizes: [] },
  prices,
  ...more,
})

/** What a resource is charged for under a line every day: of so many days, up to so many before the end. */
export function everyDay(
  name: string,
  line: Pick<PriceLine, 'sku' | 'unit' | 'service'>,
  { quantity, cost, from = 70, to = 0, ...more }: { quantity: string; cost: string; from?: number; to?: number } & Partial<PlainCharge>,
): PlainCharge[] {
  const start = addDays(END, -from)
  return Array.from({ length: daysBetween(start, addDays(END, -to)) }, (_, i) =>
    oneCharge({
      ...{ day: addDays(start, i), hours: 24, amount: cost, quantity },
      ...more,
      values: {
        ...{ ResourceId: `id-${name}`, ResourceName: name, ProviderName: 'P', RegionId: 'here', SubAccountName: 'live' },
        ...{ SkuId: line.sku, PricingUnit: line.unit, ServiceName: line.service, ChargeCategory: 'Usage' },
        ...more.values,
      },
    }),
  )
}
