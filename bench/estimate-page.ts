// Runs in the browser: how long an edit takes to price, and how long the draws take.
import { newEstimate, newRow, type Component, type Estimate } from '../core/estimate/estimate'
import { figureText, priceEstimate, priceScenarios } from '../core/estimate/pricing/price-estimate'
import { PriceMemo } from '../core/estimate/pricing/price-memo'
import { asScenario } from '../core/estimate/scenarios/layer'
import { simulate } from '../core/estimate/ranges/simulate'
import type { RateCard } from '../core/ratecard/rate-card'

const kinds: [string, Record<string, string>][] = [
  ['server', { size: 'otter-4x16', count: '3' }],
  ['disk', { class: 'steady', storageGb: '120', count: '3' }],
  ['internet-transfer', { sentGb: '900' }],
  ['object-storage', { class: 'ready', storageGb: '4000', reads: '100000' }],
  ['database', { size: 'heron-4x32', storageGb: '300' }],
  ['gateway', { passedGb: '700' }],
  ['logs', { ingestedGb: '80' }],
  ['functions', { calls: '9000000' }],
  ['load-balancer', { balancedGb: '300' }],
  ['snapshot', { protectedGb: '400' }],
]

/** An estimate of so many rows in ten parts, with a support plan that depends on all of them. */
export function largeEstimate(card: RateCard, rows: number, ranges: boolean): Estimate {
  const components = Array.from({ length: rows - 1 }, (_, i): Component => {
    const [kind, inputs] = kinds[i % kinds.length]!
    const own =
      ranges && i % 3 === 0
        ? Object.fromEntries(
            Object.entries(inputs).map(([name, value]) => [
              name,
              /^\d+$/.test(value) && name !== 'count' ? `${Number(value) / 2}..${value}..${Number(value) * 3}` : value,
            ]),
          )
        : inputs
    // no two rows alike: what is remembered of one must not serve another
    const unlike = ranges
      ? own
      : Object.fromEntries(
          Object.entries(own).map(([name, value]) => [name, /^\d+$/.test(value) && name !== 'count' ? String(Number(value) + i) : value]),
        )
    return newRow(`c${i}`, `part ${i % 10}`, kind, unlike, { confirmed: [] })
  })
  return {
    ...newEstimate('large', card, card.regions[0]!.id),
    useFreeAllowance: true,
    discounts: [{ provider: card.provider, percent: '5' }],
    taxPercent: '20',
    components: [...components, newRow('support', 'part 0', 'support', { plan: 'hearing' }, { confirmed: [] })],
    scenarios: [
      asScenario({ whole: { pays: '1 year, paid monthly' } }, 's1', '1'),
      asScenario({ whole: { pays: '3 years, all in advance' } }, 's2', '2'),
      asScenario({ whole: { where: card.regions[1]!.id } }, 's3', '3'),
      asScenario({ whole: { where: card.regions[2]!.id, pays: '1 year, part in advance' } }, 's4', '4'),
      asScenario({ rows: { c0: { count: '9' } } }, 's5', '5'),
    ],
  }
}

const median = (times: number[]) => [...times].sort((a, b) => a - b)[Math.floor(times.length / 2)]!
/** Something that nothing may optimise away. */
let seen = 0

const bench = {
  seen: () => seen,
  /** Milliseconds of each of several edits in an estimate of 200 rows and 6 scenarios: a number in a row of each kind, in turn. */
  edits(card: RateCard) {
    const prices = { cards: new Map([[card.provider, card]]), uplifts: [], rates: [] }
    let estimate = largeEstimate(card, 200, false)
    const memo = new PriceMemo()
    const began = performance.now()
    const totals = () => {
      for (const priced of priceScenarios(estimate, prices, memo))
        for (const root of Object.values(priced.total)) seen += figureText(root).length
    }
    totals()
    const first = performance.now() - began
    const times = Array.from({ length: 120 }, (_, i) => {
      const row = (i * 7) % 199
      const component = estimate.components[row]!
      const [field, value] = Object.entries(component.inputs).find(([, v]) => /^\d+$/.test(v))!
      const changed = { ...component, inputs: { ...component.inputs, [field]: String(Number(value) + 1) } }
      const start = performance.now()
      estimate = { ...estimate, components: estimate.components.with(row, changed) }
      totals()
      return performance.now() - start
    }).slice(20)
    return { first, median: median(times), most: Math.max(...times) }
  },
  /** Milliseconds of 10 000 draws of 50 rows. */
  draws(card: RateCard) {
    const priced = priceEstimate(largeEstimate(card, 50, true), { cards: new Map([[card.provider, card]]), uplifts: [], rates: [] })
    return median(
      [1, 2, 3, 4, 5].map(seed => {
        const start = performance.now()
        seen += simulate(priced, seed)!.draws
        return performance.now() - start
      }),
    )
  },
}
Object.assign(globalThis, { bench })
