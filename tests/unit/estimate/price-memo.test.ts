// What is remembered between edits must never be seen in a figure: whatever is changed, in whatever order, and back again.
import fc from 'fast-check'
import { expect, it } from 'vitest'
import { newEstimate, type Component, type Estimate, type Scenario } from '../../../core/estimate/estimate'
import { figureNames, priceScenarios, type Prices } from '../../../core/estimate/pricing/price-estimate'
import { PriceMemo } from '../../../core/estimate/pricing/price-memo'
import type { PricedEstimate } from '../../../core/estimate/pricing/priced'
import type { StoredUplift } from '../../../core/uplift/uplift-set'
import { evaluate } from '../../../core/working/working'
import { brackwaterCard, larkfieldCard } from '../../../demo/rate-cards'
import { pricesOf, testRows } from '../../support/test-card'

const rows = testRows([
  ['server', { size: 'otter-2x8', count: '2', hoursPerMonth: '730', pays: '1 year, part in advance' }],
  ['internet-transfer', { sentGb: '20000' }],
  ['internet-transfer', { sentGb: '300' }],
  ['object-storage', { class: 'ready', storageGb: '60000' }],
  ['support', { plan: 'hearing' }],
])
const surcharge = (amount: string, validFrom = '2026-01-01'): StoredUplift => ({
  ...{ id: 'u', name: 'Watching', currency: 'EUR', interval: 'month' as const, validFrom, who: 'Ines', setAt: '' },
  charges: [
    { by: 'flat', label: 'watching', amount },
    { by: 'percent', label: 'risk', amount: '2' },
  ],
  attached: [
    { to: 'kind', key: 'server', variant: null },
    { to: 'pattern', key: 'web', variant: null },
  ],
})
const scenario = (more: Partial<Scenario> = {}): Scenario => ({ id: 's', name: 's', whole: {}, rows: {}, conditions: [], ...more })

type State = { estimate: Estimate; prices: Prices }
const onRow = (at: number, change: (row: Component) => Component) => (s: State) => ({
  ...s,
  estimate: {
    ...s.estimate,
    components: s.estimate.components.map((row, i) => (i === at % s.estimate.components.length ? change(row) : row)),
  },
})
const whole = (change: Partial<Estimate>) => (s: State) => ({ ...s, estimate: { ...s.estimate, ...change } })
const at = fc.nat(4)
const edit: fc.Arbitrary<(s: State) => State> = fc.oneof(
  fc.tuple(at, fc.constantFrom('1', '5', '40')).map(([i, count]) => onRow(i, row => ({ ...row, inputs: { ...row.inputs, count } }))),
  fc.tuple(at, fc.constantFrom('1', '400', '90000')).map(([i, sentGb]) => onRow(i, row => ({ ...row, inputs: { ...row.inputs, sentGb } }))),
  fc.tuple(at, fc.constantFrom('server', 'disk', 'internet-transfer')).map(([i, kind]) => onRow(i, row => ({ ...row, kind }))),
  fc.tuple(at, fc.constantFrom(null, 'web')).map(([i, pattern]) => onRow(i, row => ({ ...row, pattern }))),
  fc.tuple(at, fc.constantFrom('all', 'east', 'west')).map(([i, part]) => onRow(i, row => ({ ...row, part }))),
  fc.tuple(at, fc.boolean()).map(([i, muted]) => onRow(i, row => ({ ...row, muted }))),
  at.map(i => (s: State) => ({
    ...s,
    estimate: { ...s.estimate, components: s.estimate.components.toSpliced(i, 1, ...s.estimate.components.slice(i, i + 1)).toReversed() },
  })),
  at.map(
    i => (s: State) =>
      s.estimate.components.length > 1
        ? { ...s, estimate: { ...s.estimate, components: s.estimate.components.toSpliced(i % s.estimate.components.length, 1) } }
        : s,
  ),
  fc
    .constantFrom<Partial<Estimate>>(
      { marginPercent: '18' },
      { marginPercent: '0' },
      { taxPercent: '25' },
      { taxPercent: '0' },
      { termYears: 3 },
      { termYears: null },
      { useFreeAllowance: true },
      { useFreeAllowance: false },
      { currency: 'USD' },
      { currency: null },
      { month: '2026-10' },
      { month: null },
      { region: 'far-cape' },
      { region: 'low-coast' },
      { discounts: [{ provider: 'Brackwater Cloud', percent: '10' }] },
      { discounts: [] },
      { rates: [{ from: 'EUR', rate: '1.2', day: '2026-10-01' }] },
      { funding: [{ label: 'grant', amount: '20', threshold: '10', fromMonth: 2, months: 6 }] },
      { funding: [] },
      { scenarios: [scenario({ whole: { pays: '3 years, all in advance' } })] },
      { scenarios: [scenario({ whole: { pays: '3 years, all in advance' }, rows: { c0: { pays: 'on-demand' } } })] },
      { scenarios: [scenario({ whole: { where: 'far-cape', sentGb: '7' } })] },
      { scenarios: [scenario({ rows: { c1: { muted: 'yes' }, c0: { count: '3' } } })] },
      { scenarios: [scenario({ rows: { c1: { muted: 'no' } } })] },
      { scenarios: [scenario(), scenario({ id: 't', whole: { pays: 'on-demand' } })] },
      { scenarios: [] },
    )
    .map(whole),
  fc
    .constantFrom<StoredUplift[]>([], [surcharge('5')], [surcharge('50')])
    .map(uplifts => (s: State) => ({ ...s, prices: { ...s.prices, uplifts } })),
)

/** Everything that is shown of prices, as texts. */
const shown = (all: PricedEstimate[]) =>
  all.map(({ rows, total, steps, currency, termYears, unpriced, muted, counted, uncounted, cost }) => ({
    ...{ currency, termYears, unpriced, steps: JSON.stringify(steps), cost: JSON.stringify(cost) },
    sets: [muted, counted, uncounted].map(set => [...set]),
    total: figureNames.map(name => JSON.stringify(total[name])),
    rows: rows.map(row => [
      ...[row.id, row.kind?.kind, row.place?.region, row.problems, row.refusal, row.replaced, row.notOffered, row.notices],
      row.uplifts.map(set => set.charges[0]),
      row.ways.map(way => [way.way, evaluate(way.monthly).toFixed(), evaluate(way.upfront).toFixed(), evaluate(way.firstYear).toFixed()]),
      JSON.stringify(row.chosen),
    ]),
  }))

it('no edit leaves anything of the state before in a figure', () => {
  fc.assert(
    fc.property(fc.array(edit, { minLength: 1, maxLength: 12 }), edits => {
      const memo = new PriceMemo()
      const rated = pricesOf(brackwaterCard, larkfieldCard)
      let s: State = {
        estimate: { ...newEstimate('x', brackwaterCard, 'low-coast'), components: rows },
        prices: { ...rated, rates: [{ from: 'EUR', to: 'USD', validFrom: '2026-01-01', rate: '1.1' }] },
      }
      const states = [s, ...edits.map(change => (s = change(s)))]
      // forth, and back over the same states
      for (const { estimate, prices } of [...states, ...states.toReversed()])
        expect(shown(priceScenarios(estimate, prices, memo))).toEqual(shown(priceScenarios(estimate, prices)))
    }),
    { numRuns: 50 },
  )
})

it('what is not changed is the very same, priced once', () => {
  const memo = new PriceMemo()
  const prices = pricesOf(brackwaterCard)
  const estimate = {
    ...newEstimate('x', brackwaterCard, 'low-coast'),
    components: rows,
    scenarios: [scenario({ whole: { pays: 'on-demand' } })],
  }
  const [first, second] = [priceScenarios(estimate, prices, memo), priceScenarios({ ...estimate }, prices, memo)]
  first.forEach((priced, i) => expect(second[i]).toBe(priced))
  const edited = {
    ...estimate,
    components: estimate.components.map((row, i) =>
      i === 3 ? { ...row, inputs: { ...row.inputs, storageGb: '1' } } : { ...row, inputs: { ...row.inputs } },
    ),
  }
  const third = priceScenarios(edited, prices, memo)
  // the support plan is a share of all
  for (const [i, { rows: now }] of third.entries())
    expect(now.map((row, k) => row === first[i]!.rows[k])).toEqual([true, true, true, false, false])
})
