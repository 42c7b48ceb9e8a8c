import { findKind } from './components'
import type { Estimate } from './estimate'
import { figuresOf } from './pricing/figures'
import { figureOf, priceEstimate, yearsOfTerm, type FigureName, type Prices } from './pricing/price-estimate'
import type { PricedEstimate } from './pricing/priced'
import { rowInPart, rowNames } from './sheet/row-name'
import { difference, notCounted, withOnlyPriced, type Difference, type NotCounted } from './scenarios/compare'

/** One thing that differs between two states of an estimate. `component` is null for what is not of a row. */
export type EstimateChange = { component: string | null; what: string; field: string; before: string | null; after: string | null }
export type EstimateComparison = {
  changes: EstimateChange[]
  /** Rows that cost something else; null where one state cannot price it: it is not compared. */
  rows: { component: string; label: string; effectiveMonthly: Difference | null }[]
  /** Over the rows that neither state fails to price. */
  totals: Record<FigureName, Difference>
  before: PricedEstimate
  after: PricedEstimate
  /** Rows that the later state should count and cannot price, with what they cost in the earlier one. */
  lacks: NotCounted | null
  /** Rows that the earlier state could not price. */
  lackedBefore: number
}

/**
 * What differs between two states of an estimate: in inputs, and in money where both are priced on their own rate cards and over the same
 * years. A row that one of the two cannot price is left out of both totals: it is not saved.
 */
export function compareEstimates(before: Estimate, beforePrices: Prices, after: Estimate, afterPrices: Prices): EstimateComparison {
  const years = Math.max(yearsOfTerm(before, beforePrices), yearsOfTerm(after, afterPrices))
  const [was, is] = [
    { ...before, termYears: years },
    { ...after, termYears: years },
  ]
  const [a, b] = [priceEstimate(was, beforePrices), priceEstimate(is, afterPrices)]
  const lacking = [a, b]
  const [likeA, likeB] =
    a.unpriced + b.unpriced
      ? [priceEstimate(withOnlyPriced(was, lacking), beforePrices), priceEstimate(withOnlyPriced(is, lacking), afterPrices)]
      : [a, b]
  const all = new Map([...before.components, ...after.components].map(c => [c.id, c]))
  const names = new Map([...rowNames(before.components), ...rowNames(after.components)])
  const isUncounted = (id: string) => a.uncounted.has(id) || b.uncounted.has(id)
  const figure = (priced: PricedEstimate, id: string) => {
    const chosen = priced.counted.has(id) ? priced.byId.get(id)?.chosen : null
    return chosen ? figureOf(chosen, 'effectiveMonthly', priced.termYears) : null
  }
  const rows = [...all.keys()]
    .map(id => ({
      component: id,
      label: names.get(id)!,
      effectiveMonthly: isUncounted(id) ? null : difference(figure(a, id), figure(b, id)),
    }))
    .filter(r => r.effectiveMonthly?.amount !== '0')
  return {
    changes: inputChanges(before, after),
    rows,
    totals: figuresOf(name => difference(likeA.total[name], likeB.total[name])),
    before: a,
    after: b,
    lacks: notCounted(b, a),
    lackedBefore: a.unpriced,
  }
}

function inputChanges(before: Estimate, after: Estimate): EstimateChange[] {
  const whole = (
    [
      'name',
      'note',
      'currency',
      'provider',
      'region',
      'startsOn',
      'month',
      'termYears',
      'target',
      'useFreeAllowance',
      'marginPercent',
      'taxPercent',
      'cards',
      'rates',
      'discounts',
      'funding',
      'dismissed',
      'seed',
    ] as const
  ).flatMap((field): EstimateChange[] => {
    const [was, is] = [before[field], after[field]].map(value =>
      value === null ? null : typeof value === 'object' ? value.map(entry => Object.values(entry).join(', ')).join('; ') : String(value),
    )
    return was === is
      ? []
      : [{ component: null, what: 'estimate', field: whatIsCalled[field] ?? field, before: was ?? null, after: is ?? null }]
  })
  const old = new Map(before.components.map(c => [c.id, c]))
  const rows = after.components.flatMap((c): EstimateChange[] => {
    const was = old.get(c.id)
    old.delete(c.id)
    if (!was) return [{ component: c.id, what: rowInPart(c), field: 'row', before: null, after: 'added' }]
    const fields = [...new Set([...Object.keys(was.inputs), ...Object.keys(c.inputs)])].filter(
      field => was.inputs[field] !== c.inputs[field],
    )
    const label = (field: string) => (field === 'where' ? 'where' : (findKind(c.kind)?.fields.find(f => f.name === field)?.label ?? field))
    return [
      ...fields.map(field => ({
        component: c.id,
        what: rowInPart(c),
        field: label(field),
        before: was.inputs[field] ?? null,
        after: c.inputs[field] ?? null,
      })),
      ...(['name', 'part', 'note', 'muted'] as const)
        .filter(field => was[field] !== c[field])
        .map(field => ({ component: c.id, what: rowInPart(c), field, before: String(was[field]), after: String(c[field]) })),
    ]
  })
  const gone = [...old.values()].map(c => ({ component: c.id, what: rowInPart(c), field: 'row', before: 'there', after: null }))
  const scenarios =
    JSON.stringify(before.scenarios) === JSON.stringify(after.scenarios)
      ? []
      : [
          {
            component: null,
            what: 'estimate',
            field: 'scenarios',
            before: before.scenarios.map(s => s.name).join(', '),
            after: after.scenarios.map(s => s.name).join(', '),
          },
        ]
  return [...whole, ...rows, ...gone, ...scenarios]
}

const whatIsCalled: Record<string, string> = {
  startsOn: 'begins on',
  termYears: 'years of the whole term',
  useFreeAllowance: 'free allowances counted on',
  marginPercent: 'margin, %',
  taxPercent: 'tax, %',
  cards: 'rate cards',
  rates: 'exchange rates',
  dismissed: 'dismissed blind spots',
  seed: 'seed of the draws',
}
