import { newEstimate, newRow, type Component, type Estimate, type Scenario } from '../../core/estimate/estimate'
import { figureNames, figureText, priceEstimate, type FigureName, type Prices } from '../../core/estimate/pricing/price-estimate'
import type { WayPrice } from '../../core/estimate/pricing/ways-to-pay'
import type { PriceLine, RateCard } from '../../core/ratecard/rate-card'

const line = (
  meter: PriceLine['meter'],
  variant: string | null,
  unit: PriceLine['unit'],
  price: string,
  more: Partial<PriceLine> = {},
): PriceLine => ({
  sku: `T-${meter}-${variant}`,
  service: 'test',
  meter,
  variant,
  region: 'here',
  unit,
  tiering: 'graduated',
  tiers: [{ from: '0', price }],
  ...more,
})

/** A rate card with the round prices of common practice; not the demo's. */
export const testCard: RateCard = {
  provider: 'Testcloud',
  currency: 'EUR',
  validFrom: '2026-01-01',
  regions: [{ id: 'here', name: 'Here' }],
  serverSizes: ['small', 'plain', 'steady'].map((size, i) => ({ size, vcpu: 2 ** i, memoryGb: 2 ** (i + 1) })),
  prices: [
    line('server-hour', 'small', 'Hours', '0.0116', {
      commitments: [
        { years: 3, paid: 'all in advance', upfrontPrice: '136', hourlyPrice: '0' },
        { years: 1, paid: 'paid monthly', upfrontPrice: '0', hourlyPrice: '0.0073' },
      ],
    }),
    line('server-hour', 'plain', 'Hours', '0.028'),
    line('server-hour', 'steady', 'Hours', String(12.26 / 730), {
      tiers: [{ from: '0', price: '12.26' }],
      commitments: [
        { years: 3, paid: 'all in advance', upfrontPrice: '2000', hourlyPrice: '0' },
        { years: 1, paid: 'paid monthly', upfrontPrice: '0', hourlyPrice: '7.67' },
      ],
    }),
    line('disk-gb-month', 'plain', 'GB-Months', '0.08'),
    line('object-gb-month', 'ready', 'GB-Months', '0.023'),
    line('object-write-1000', 'ready', '1000 Requests', '0.005'),
    line('object-read-1000', 'ready', '1000 Requests', '0.0004'),
    line('function-gb-second', null, 'GB-Seconds', '0.0000166667'),
    line('function-call', null, '1000000 Requests', '0'),
    line('transfer-out-gb', null, 'GB', '0.09', { freeAllowance: '100' }),
  ],
}

/** An estimate on that card. */
export function testEstimate(components: [kind: string, inputs: Record<string, string>][], more: Partial<Estimate> = {}): Estimate {
  return { ...newEstimate('test', testCard, 'here'), components: testRows(components), ...more }
}

/** Rows named c0, c1 and so on. */
export function testRows(components: [kind: string, inputs: Record<string, string>][]): Component[] {
  return components.map(([kind, inputs], i) => newRow(`c${i}`, 'all', kind, inputs, { confirmed: [] }))
}

export const pricesOf = (...cards: RateCard[]): Prices => ({
  cards: new Map(cards.map(card => [card.provider, card])),
  uplifts: [],
  rates: [],
})
export const testPrices = pricesOf(testCard)

/** The figures as texts, as people check them. */
export function priceTest(estimate: Estimate, prices: Prices = testPrices, scenario: Scenario | null = null) {
  const priced = priceEstimate(estimate, prices, scenario)
  const way = (w: WayPrice) => ({
    way: w.way,
    workings: w,
    upfront: figureText(w.upfront),
    monthly: figureText(w.monthly),
    effectiveMonthly: figureText(w.effectiveMonthly),
    firstYear: figureText(w.firstYear),
    wholeTerm: w.wholeTerm && figureText(w.wholeTerm),
    breakEvenHours: w.breakEvenHours && figureText(w.breakEvenHours),
  })
  return {
    priced,
    unpriced: priced.unpriced,
    totals: Object.fromEntries(figureNames.map(name => [name, figureText(priced.total[name])])) as Record<FigureName, string>,
    components: priced.rows.map(row => ({ ...row, ways: row.ways.map(way), chosen: row.chosen && way(row.chosen) })),
  }
}
