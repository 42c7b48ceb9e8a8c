// Unlike sums are not compared: a row that one side cannot price is left out of both, and what a total lacks stands beside it.
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { compareEstimates } from '../../../core/estimate/compare-estimates'
import { makeDocument } from '../../../core/estimate/documents/document'
import { newEstimate, newRow, type Estimate } from '../../../core/estimate/estimate'
import { findMachines, isRanked, type Needs } from '../../../core/estimate/finder/find-machines'
import { priceOnCard } from '../../../core/estimate/sheet/name-card'
import { figureText, priceEstimate, priceScenarios } from '../../../core/estimate/pricing/price-estimate'
import { PriceMemo } from '../../../core/estimate/pricing/price-memo'
import { closeGap } from '../../../core/estimate/scenarios/close-gap'
import { alike, compareScenarios, notCounted } from '../../../core/estimate/scenarios/compare'
import { asScenario } from '../../../core/estimate/scenarios/layer'
import { waysForAll } from '../../../core/estimate/scenarios/ways-for-all'
import type { RateCard } from '../../../core/ratecard/rate-card'
import { brackwaterCard, larkfieldCard, pierHouseCard } from '../../../demo/rate-cards'
import { pricesOf } from '../../support/test-card'

/** Two regions: `near` prices everything, `far` has no fast disks. Servers 1.00 and 0.90 an hour, disks 0.50 a GB, support 10 %. */
const line = (
  meter: string,
  variant: string | null,
  region: string,
  unit: 'Hours' | 'GB-Months' | 'Share of Spend',
  price: string,
): RateCard['prices'][number] => ({
  sku: `${meter}-${variant}-${region}`,
  service: 's',
  meter,
  variant,
  region,
  unit,
  tiering: 'graduated',
  tiers: [{ from: '0', price }],
})
const card: RateCard = {
  provider: 'Twin',
  currency: 'EUR',
  validFrom: '2026-01-01',
  regions: [
    { id: 'near', name: 'Near' },
    { id: 'far', name: 'Far' },
  ],
  serverSizes: [{ size: 'm', vcpu: 2, memoryGb: 4 }],
  prices: [
    line('server-hour', 'm', 'near', 'Hours', '1'),
    line('server-hour', 'm', 'far', 'Hours', '0.9'),
    line('disk-gb-month', 'fast', 'near', 'GB-Months', '0.5'),
    line('support-share', 'plan', 'near', 'Share of Spend', '0.1'),
    line('support-share', 'plan', 'far', 'Share of Spend', '0.1'),
  ],
}
const prices = pricesOf(card)
// 730 + 9,000 GB × 0.5 = 4,500, support 523: 5,753 a month; with 10 % tax 6,328.30
const estimate: Estimate = {
  ...newEstimate('t', card, 'near'),
  target: '3000',
  taxPercent: '10',
  components: [
    newRow('machine', 'p', 'server', { size: 'm' }),
    newRow('store', 'p', 'disk', { class: 'fast', storageGb: '9000' }),
    newRow('help', 'p', 'support', { plan: 'plan' }),
  ],
  scenarios: [asScenario({ whole: { where: 'far' } }, 'far', 'in far')],
}

describe('a scenario that cannot price a row', () => {
  const [base, far] = priceScenarios(estimate, prices) as [ReturnType<typeof priceEstimate>, ReturnType<typeof priceEstimate>]
  it('is compared over the rows that both can price: 803.00 and 722.70 with support, 10 % tax on top: −88.33, not −5,533.57', () => {
    expect(figureText(base.total.monthly)).toBe('6328.3')
    expect(figureText(far.total.monthly)).toBe('794.97') // (657 + 65.7) × 1.1
    const { rows, total, lacks } = compareScenarios(estimate, prices, base, far, 'monthly')
    expect(total).toEqual({ amount: '-88.33', share: '-0.1' })
    expect(rows.get('store')).toBeNull()
    expect(rows.get('machine')!.amount).toBe('-73')
    expect(lacks).toMatchObject({ rows: 1, amounts: { monthly: '4500', effectiveMonthly: '4500', wholeTerm: '54000' } })
  })
  it('says so in every document, whatever column it is of', () => {
    const own = makeDocument(estimate, prices, 'own', { version: 1, preparedOn: '2026-11-24', preparedBy: 'x' })
    expect(own.lacks).toBeNull()
    expect(own.columns.map(c => [c.name, c.lacks?.rows ?? 0, c.difference?.monthly ?? null])).toEqual([
      ['as it stands', 0, null],
      ['in far', 1, '-88.33'],
    ])
    for (const audience of ['own', 'customer'] as const) {
      const of = makeDocument(estimate, prices, audience, { version: 1, preparedOn: '2026-11-24', preparedBy: 'x', scenario: 'far' })
      expect(of.lacks!.rows).toBe(1)
      expect(of.summary.at(-1)!.figures.monthly).toBe('794.97')
    }
    expect(makeDocument(estimate, prices, 'own', { version: 1, preparedOn: '2026-11-24', preparedBy: 'x', scenario: 'far' })).toMatchObject(
      { scenario: 'in far', target: '3000' },
    )
  })
  it('closes no gap and leads no ranking, though its total lies under the target', () => {
    const closers = closeGap(estimate, prices, new PriceMemo())
    const inFar = closers.find(c => c.id === 'region far')!
    expect(inFar).toMatchObject({ lacks: 1, closes: false })
    expect(Number(inFar.saving)).toBeCloseTo(88.33, 9)
    expect(closers.findIndex(c => c.lacks > 0)).toBe(closers.length - closers.filter(c => c.lacks > 0).length)
    expect(closers.filter(c => c.closes).every(c => c.lacks === 0)).toBe(true)
  })
})

it('counts rows whose inputs are refused as lacking, in the estimate itself and in every way to pay', () => {
  const refused = {
    ...estimate,
    scenarios: [],
    components: [...estimate.components, newRow('odd', 'p', 'server', { size: 'm', count: 'many' })],
  }
  const priced = priceEstimate(refused, prices)
  expect(notCounted(priced, priced)).toEqual({ rows: 1, amounts: null })
  expect(makeDocument(refused, prices, 'customer', { version: 1, preparedOn: '2026-11-24', preparedBy: 'x' }).lacks).toEqual({
    rows: 1,
    amounts: null,
  })
  for (const way of waysForAll(refused, prices).ways) expect(way.lacks).toEqual({ rows: 1, amounts: null })
})

it('leaves what a newer card does not price out of the difference, and names it', () => {
  const newer: RateCard = {
    ...card,
    validFrom: '2026-12-01',
    prices: card.prices
      .filter(l => l.meter !== 'disk-gb-month')
      .map(l => (l.meter === 'server-hour' && l.region === 'near' ? { ...l, tiers: [{ from: '0', price: '1.2' }] } : l)),
  }
  const { estimate: after } = priceOnCard(estimate, prices.cards, { provider: 'Twin', date: '2026-12-01', revision: 1 }, newer)
  const { totals, rows, lacks } = compareEstimates(estimate, prices, after, pricesOf(newer))
  // 730 × 0.2 = 146, with support and tax 176.66; the disks are not saved
  expect(totals.monthly.amount).toBe('176.66')
  expect(rows.find(r => r.component === 'store')!.effectiveMonthly).toBeNull()
  expect(lacks).toMatchObject({ rows: 1, amounts: { monthly: '4500' } })
})

it('keeps an offer that no rate leads from in its own currency and out of the ranking', () => {
  const all = pricesOf(brackwaterCard, larkfieldCard, pierHouseCard)
  const needs: Needs = {
    vcpu: 16,
    memoryGb: 64,
    architecture: '',
    system: 'open, no licence',
    host: 'shared host',
    diskGb: '0',
    hoursPerMonth: 'always on',
    count: '1',
    places: [],
    residencies: [],
  }
  const terms = { currency: 'EUR', rates: [], discounts: [], month: null, startsOn: null }
  const { offers } = findMachines(needs, all, terms, 'on-demand')
  const foreign = offers.filter(o => o.provider === 'Larkfield Compute')
  expect(foreign.length).toBeGreaterThan(0)
  for (const offer of foreign) expect([offer.currency, offer.rate, isRanked(offer, terms, 'on-demand')]).toEqual(['USD', null, false])
  expect(offers.slice(0, offers.length - foreign.length).every(o => isRanked(o, terms, 'on-demand'))).toBe(true)
  // with a dated rate of Sources it is ranked among the others, and the rate is said: slate seven, 16 × 0.0211 + 64 × 0.0053 = 0.6768 USD
  const dated = findMachines(
    needs,
    { ...all, rates: [{ from: 'EUR', to: 'USD', validFrom: '2026-11-02', rate: '1.25' }] },
    terms,
    'on-demand',
  )
  const slate = dated.offers.find(o => o.size === 'slate seven' && o.region === 'lk-alpha')!
  expect(slate).toMatchObject({ currency: 'EUR', rate: { rate: '0.8', day: '2026-11-02' } })
  expect(Number(slate.ways[0]!.effectiveMonthly)).toBeCloseTo(0.6768 * 730 * 0.8, 8)
})

it('takes every difference over like rows, whatever is missing on either side', () => {
  const gone = (which: boolean[], region: string): RateCard => ({
    ...card,
    prices: card.prices.filter(
      l =>
        !(l.region === region && l.meter === 'server-hour' && which[0]) &&
        !(l.region === region && l.meter === 'disk-gb-month' && which[1]),
    ),
  })
  fc.assert(
    fc.property(
      fc.array(fc.boolean(), { minLength: 2, maxLength: 2 }),
      fc.array(fc.boolean(), { minLength: 2, maxLength: 2 }),
      fc.integer({ min: 1, max: 5 }),
      (near, far, count) => {
        const of = pricesOf(
          gone(far, 'far').prices.length
            ? {
                ...gone(far, 'far'),
                prices: gone(far, 'far').prices.filter(l => gone(near, 'near').prices.includes(l) || l.region === 'far'),
              }
            : card,
        )
        const e = {
          ...estimate,
          components: estimate.components.map(c => (c.id === 'machine' ? { ...c, inputs: { ...c.inputs, count: String(count) } } : c)),
        }
        const [a, b] = priceScenarios(e, of) as [ReturnType<typeof priceEstimate>, ReturnType<typeof priceEstimate>]
        const [x, y] = alike(e, of, a, b)
        expect([...x.counted].sort()).toEqual([...y.counted].sort())
        const { rows, total } = compareScenarios(e, of, a, b, 'monthly')
        for (const id of [...a.uncounted, ...b.uncounted]) expect(rows.get(id)).toBeNull()
        const both = [...x.counted]
        const sum = both.reduce(
          (n, id) => n + Number(figureText(y.byId.get(id)!.chosen!.monthly)) - Number(figureText(x.byId.get(id)!.chosen!.monthly)),
          0,
        )
        expect(Number(total.amount)).toBeCloseTo(sum * 1.1, 8)
      },
    ),
  )
})
