import fc from 'fast-check'
import { expect, it } from 'vitest'
import { newEstimate, type Estimate, type Scenario } from '../../../core/estimate/estimate'
import { figureNames, figureText, priceEstimate } from '../../../core/estimate/pricing/price-estimate'
import { PriceMemo } from '../../../core/estimate/pricing/price-memo'
import { closeGap } from '../../../core/estimate/scenarios/close-gap'
import { compareScenarios } from '../../../core/estimate/scenarios/compare'
import { rowNames } from '../../../core/estimate/sheet/row-name'
import { changeName } from '../../../core/estimate/scenarios/change-name'
import { asScenario, layer, takeOver } from '../../../core/estimate/scenarios/layer'
import { waysForAll } from '../../../core/estimate/scenarios/ways-for-all'
import { moveScenario } from '../../../core/estimate/scenarios/move'
import { brackwaterCard, larkfieldCard } from '../../../demo/rate-cards'
import { pricesOf, testRows } from '../../support/test-card'

const prices = pricesOf(brackwaterCard, larkfieldCard)
const estimate: Estimate = {
  ...newEstimate('t', brackwaterCard, 'low-coast'),
  target: '700',
  rates: [{ from: 'USD', rate: '0.9', day: '2026-11-02' }],
  cards: [brackwaterCard, larkfieldCard].map(c => ({ provider: c.provider, date: c.validFrom, revision: 1 })),
  components: testRows([
    ['server', { size: 'otter-4x16', count: '3' }],
    ['disk', { class: 'steady', storageGb: '100', count: '3' }],
    ['internet-transfer', { sentGb: '5000' }],
    ['database', { size: 'otter-2x8' }],
    ['free-form', { amount: '10' }],
  ]),
}
const total = (e: Estimate, scenario: Scenario | null = null) =>
  Number(figureText(priceEstimate(e, prices, scenario).total.effectiveMonthly))
const named = (change: Pick<Scenario, 'whole' | 'rows'>): Scenario => ({ id: 's', name: 's', conditions: [], ...change })

it('without an override is its base, row by row', () => {
  const [base, same] = [priceEstimate(estimate, prices), priceEstimate(estimate, prices, named({ whole: {}, rows: {} }))]
  for (const name of figureNames) {
    const { rows, total: whole } = compareScenarios(estimate, prices, base, same, name)
    expect([whole, ...rows.values()].every(d => d!.amount === '0')).toBe(true)
  }
})

it('differs by rows as it differs in total', () => {
  const base = priceEstimate(estimate, prices)
  fc.assert(
    fc.property(
      fc.constantFrom('on-demand', '1 year, paid monthly', '3 years, all in advance'),
      fc.constantFrom('', 'east-delta', 'far-cape', 'Larkfield Compute/lk-alpha'),
      fc.integer({ min: 0, max: 9000 }),
      (pays, where, sentGb) => {
        const moved = where.includes('/')
          ? moveScenario(estimate, { provider: 'Larkfield Compute', region: 'lk-alpha' }, 's', 's')
          : named({ whole: { where }, rows: {} })
        const other = priceEstimate(
          estimate,
          prices,
          asScenario(layer(moved, { whole: { pays }, rows: { c2: { sentGb: String(sentGb) } }, conditions: [] })),
        )
        expect(other.unpriced).toBe(0)
        const { rows, total: whole } = compareScenarios(estimate, prices, base, other, 'effectiveMonthly')
        const sum = [...rows.values()].reduce((n, d) => n + Number(d!.amount), 0)
        expect(sum).toBeCloseTo(Number(whole.amount), 8)
      },
    ),
    { numRuns: 30 },
  )
})

it('moves to another provider by taking the nearest that fits, and says what it replaced', () => {
  const scenario = moveScenario(estimate, { provider: 'Larkfield Compute', region: 'lk-alpha' }, 's', 'at Larkfield')
  expect(scenario.whole).toEqual({ where: 'Larkfield Compute/lk-alpha' })
  // no smaller in vCPU and memory than 4 × 16, and the cheapest of those
  const { unpriced, byId } = priceEstimate(estimate, prices, scenario)
  expect(byId.get('c0')!.replaced).toEqual([{ field: 'size', label: 'size', from: 'otter-4x16', to: 'slate three' }])
  expect(scenario.rows).toEqual({})
  expect(unpriced).toBe(0)
  // 3 × 730 h at 0.1692 USD and 0.9
  expect(Number(figureText(byId.get('c0')!.chosen!.effectiveMonthly))).toBeCloseTo(
    3 *
      730 *
      Number(
        larkfieldCard.prices.find(p => p.meter === 'server-hour' && p.variant === 'slate three' && p.region === 'lk-alpha')!.tiers[0]!
          .price,
      ) *
      0.9,
    8,
  )
})

it('suggests single changes, each saving what it says and closing the gap when it says so', () => {
  const closers = closeGap(estimate, prices, new PriceMemo())
  expect(closers.length).toBeGreaterThan(10)
  for (const { change, saving, closes } of closers) {
    const changed = total(estimate, named(change))
    expect(total(estimate) - changed).toBeCloseTo(Number(saving), 8)
    expect(closes).toBe(changed <= 700)
  }
  // largest first; leaving a row out, which always saves, stands behind all that keeps the workload whole
  const without = closers.filter(c => c.id.endsWith(' out'))
  expect(without.length).toBe(5)
  expect(closers.slice(-5)).toEqual(without)
  for (const list of [closers.slice(0, -5), without])
    expect(list.map(c => Number(c.saving))).toEqual(list.map(c => Number(c.saving)).sort((a, b) => b - a))
  expect(Number(without[0]!.saving)).toBeCloseTo(408, 9) // 5,000 GB sent out at 0.0816
  // no two read alike, and conditions stay together
  expect(new Set(closers.map(c => c.label)).size).toBe(closers.length)
  expect(closers.find(c => c.change.rows.c0?.size === 'teal-2x8')!.ifPossible).toBe('if it runs on arm64 and if half is enough')
})

it('suggests on top of a scenario, and what it suggests keeps what the scenario changed', () => {
  const first = closeGap(estimate, prices, new PriceMemo()).find(c => c.label.includes('a third less'))!
  const scenario = named(first.change)
  const second = closeGap(estimate, prices, new PriceMemo(), scenario).find(c => c.id === 'pays 1 year, paid monthly')!
  expect(second.change.rows.c2).toEqual(first.change.rows.c2)
  expect(total(estimate, scenario) - total(estimate, named(second.change))).toBeCloseTo(Number(second.saving), 8)
})

it('layers changes: the later one counts, a change for everything over one for a row', () => {
  expect(layer(null, { whole: { pays: 'a' }, rows: {}, conditions: [] })).toEqual({ whole: { pays: 'a' }, rows: {}, conditions: [] })
  expect(
    layer(
      { whole: { pays: 'a' }, rows: { x: { count: '1', pays: 'b' } }, conditions: ['if a'] },
      { whole: { pays: 'c' }, rows: { x: { count: '2' } }, conditions: ['if b'] },
    ),
  ).toEqual({ whole: { pays: 'c' }, rows: { x: { count: '2' } }, conditions: ['if a', 'if b'] })
})

it.each([
  ['a region for everything', { whole: { where: 'east-delta' }, rows: {} }],
  ['another provider', moveScenario(estimate, { provider: 'Larkfield Compute', region: 'lk-beta' }, 's', 's')],
  [
    'a row that stays behind',
    { whole: { where: 'far-cape', pays: '1 year, paid monthly' }, rows: { c2: { where: 'north-fjord', sentGb: '10' } } },
  ],
] as const)('makes a scenario the estimate without changing what it costs: %s', (_, change) => {
  const scenario = { ...named(change as Scenario), id: 'mine' }
  const before = total(estimate, scenario)
  const after = takeOver({ ...estimate, scenarios: [scenario] }, 'mine', prices)
  expect(after.scenarios).toEqual([])
  const inOwnCurrency = { ...after, currency: estimate.currency }
  expect(total(inOwnCurrency)).toBeCloseTo(before, 8)
})

it('sets every way to pay for the whole side by side, over the same years, with the break-even of all rows together', () => {
  const { years, ways } = waysForAll(estimate, prices)
  expect(years).toBe(3)
  expect(ways.length).toBe(7)
  for (const { way, figures } of ways)
    expect(Number(figures.effectiveMonthly)).toBeCloseTo(total(estimate, named({ whole: { pays: way }, rows: {} })), 8)
  expect(ways[0]).toMatchObject({ way: 'on-demand', breakEvenHours: null })
  const lines = [
    ['server-hour', 'otter-4x16', 3],
    ['database-hour', 'otter-2x8', 1],
  ].map(([meter, variant, count]) => ({
    line: brackwaterCard.prices.find(p => p.meter === meter && p.variant === variant && p.region === 'low-coast')!,
    count: Number(count),
  }))
  const of = ({ line, count }: (typeof lines)[number]) => ({
    committed: count * 730 * Number(line.commitments!.find(c => c.years === 1 && c.paid === 'paid monthly')!.hourlyPrice),
    hour: count * Number(line.tiers[0]!.price),
  })
  const sums = lines.map(of).reduce((a, b) => ({ committed: a.committed + b.committed, hour: a.hour + b.hour }))
  const year = ways.find(w => w.way === '1 year, paid monthly')!
  expect(Number(year.breakEvenHours)).toBeCloseTo(sums.committed / sums.hour, 8)
  expect(year.rows).toBe(2)
  expect(Number(year.figures.wholeTerm)).toBeCloseTo(36 * Number(year.figures.monthly), 6)
})

it('names a scenario by what holds in the end, and rows so that no two read alike', () => {
  const two = {
    ...estimate,
    components: [...estimate.components, ...testRows([['server', { size: 'otter-4x16', count: '9' }]]).map(c => ({ ...c, id: 'c9' }))],
  }
  expect([...rowNames(two.components).values()]).toEqual([
    'Servers, otter-4x16 (1)',
    'Disks',
    'Outgoing transfer',
    'Managed database',
    'Free-form line',
    'Servers, otter-4x16 (2)',
  ])
  // the part is told where it tells rows apart
  expect([...rowNames(two.components.with(5, { ...two.components[5]!, part: 'standby' })).values()]).toEqual([
    'Servers in all',
    'Disks',
    'Outgoing transfer',
    'Managed database',
    'Free-form line',
    'Servers in standby',
  ])
  const first = layer(null, { whole: { pays: '1 year, paid monthly' }, rows: { c2: { sentGb: '3333' } }, conditions: [] })
  const then = layer(first, { whole: { pays: '3 years, paid monthly', where: 'far-cape' }, rows: { c1: { muted: 'yes' } }, conditions: [] })
  // the first way to pay holds no longer, so it is not in the name
  expect(changeName(estimate, then)).toBe('everything 3 years, paid monthly; in far-cape; Disks: left out; 1 more')
  expect(changeName(estimate, { whole: {}, rows: {} })).toBe('as it stands')
  expect(rowNames([{ ...estimate.components[0]!, name: 'constructor' }]).get('c0')).toBe('constructor')
})
