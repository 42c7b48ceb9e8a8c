import type { Estimate } from '../../core/estimate/estimate'
import type { PriceLine, RateCard } from '../../core/ratecard/rate-card'

const line = (meter: PriceLine['meter'], variant: string | null, unit: string, price: string, more: Partial<PriceLine> = {}): PriceLine =>
  ({ sku: `T-${meter}-${variant}`, service: 'test', meter, variant, region: 'here', unit, tiering: 'graduated', tiers: [{ from: '0', price }], ...more })

/** A rate card with the round prices of common practice; not the demo's. */
export const testCard: RateCard = {
  provider: 'Testcloud', currency: 'EUR', validFrom: '2026-01-01', regions: [{ id: 'here', name: 'Here' }], serverSizes: [{ size: 'small', vcpu: 1, memoryGb: 2 }],
  prices: [
    line('server-hour', 'small', 'Hours', '0.0116', { commitments: [{ years: 3, upfront: 'all', upfrontPrice: '136', hourlyPrice: '0' }, { years: 1, upfront: 'none', upfrontPrice: '0', hourlyPrice: '0.0073' }] }),
    line('server-hour', 'plain', 'Hours', '0.028'),
    line('server-hour', 'steady', 'Hours', String(12.26 / 730), { tiers: [{ from: '0', price: '12.26' }], commitments: [{ years: 3, upfront: 'all', upfrontPrice: '2000', hourlyPrice: '0' }, { years: 1, upfront: 'none', upfrontPrice: '0', hourlyPrice: '7.67' }] }),
    line('disk-gb-month', 'plain', 'GB-Months', '0.08'),
    line('object-gb-month', 'ready', 'GB-Months', '0.023'),
    line('object-write-1000', 'ready', '1000 Requests', '0.005'),
    line('object-read-1000', 'ready', '1000 Requests', '0.0004'),
    line('transfer-out-gb', null, 'GB', '0.09', { freeAllowance: '100' }),
  ],
}

/** An estimate on that card. */
export function testEstimate(components: [kind: string, inputs: Record<string, string>][], more: Partial<Estimate> = {}): Estimate {
  return {
    format: 'rain-barrel estimate 1', name: 'test', provider: 'Testcloud', rateCardDate: '2026-01-01', region: 'here', target: null, useFreeAllowance: false, discountPercent: '0', taxPercent: '0', dismissed: [],
    components: components.map(([kind, inputs], i) => ({ id: `c${i}`, part: 'all', kind, inputs, confirmed: [] })), ...more,
  }
}
