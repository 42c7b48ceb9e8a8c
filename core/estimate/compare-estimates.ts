import { findKind } from './components'
import type { Component, Estimate } from './estimate'
import { difference, type Difference } from './scenarios/compare'
import { figureNames, figureOf, priceEstimate, type FigureName, type PricedEstimate, type Prices } from './price-estimate'

/** One thing that differs between two states of an estimate. `component` is null for what is not of a row. */
export type EstimateChange = { component: string | null, what: string, field: string, before: string | null, after: string | null }
export type EstimateComparison = { changes: EstimateChange[], rows: { component: string, label: string, effectiveMonthly: Difference }[], totals: Record<FigureName, Difference> }

const nameOf = (c: Component) => `${findKind(c.kind)?.label ?? c.kind}${c.part ? ` in ${c.part}` : ''}`

/** What differs between two states of an estimate: in inputs, and in money where both are priced on their own rate cards. */
export function compareEstimates(before: Estimate, beforePrices: Prices, after: Estimate, afterPrices: Prices): EstimateComparison {
  const [a, b] = [priceEstimate(before, beforePrices), priceEstimate(after, afterPrices)]
  const all = new Map([...before.components, ...after.components].map(c => [c.id, c]))
  const figure = (priced: PricedEstimate, id: string) => {
    const chosen = priced.counted.has(id) ? priced.byId.get(id)?.chosen : null
    return chosen ? figureOf(chosen, 'effectiveMonthly', priced.termYears) : null
  }
  const rows = [...all.values()].map(c => ({ component: c.id, label: nameOf(c), effectiveMonthly: difference(figure(a, c.id), figure(b, c.id)) })).filter(r => r.effectiveMonthly.amount !== '0')
  return { changes: inputChanges(before, after), rows, totals: Object.fromEntries(figureNames.map(name => [name, difference(a.total[name], b.total[name])])) as EstimateComparison['totals'] }
}

function inputChanges(before: Estimate, after: Estimate): EstimateChange[] {
  const whole = (['name', 'note', 'currency', 'provider', 'region', 'month', 'termYears', 'target', 'useFreeAllowance', 'marginPercent', 'taxPercent', 'cards', 'rates', 'discounts', 'funding', 'dismissed', 'seed'] as const)
    .flatMap((field): EstimateChange[] => {
      const [was, is] = [before[field], after[field]].map(value => value === null ? null : typeof value === 'object' ? value.map(entry => Object.values(entry).join(', ')).join('; ') : String(value))
      return was === is ? [] : [{ component: null, what: 'estimate', field: whatIsCalled[field] ?? field, before: was ?? null, after: is ?? null }]
    })
  const old = new Map(before.components.map(c => [c.id, c]))
  const rows = after.components.flatMap((c): EstimateChange[] => {
    const was = old.get(c.id)
    old.delete(c.id)
    if (!was) return [{ component: c.id, what: nameOf(c), field: 'row', before: null, after: 'added' }]
    const fields = [...new Set([...Object.keys(was.inputs), ...Object.keys(c.inputs)])].filter(field => was.inputs[field] !== c.inputs[field])
    const label = (field: string) => field === 'where' ? 'where' : findKind(c.kind)?.fields.find(f => f.name === field)?.label ?? field
    return [
      ...fields.map(field => ({ component: c.id, what: nameOf(c), field: label(field), before: was.inputs[field] ?? null, after: c.inputs[field] ?? null })),
      ...(['part', 'note', 'muted'] as const).filter(field => was[field] !== c[field]).map(field => ({ component: c.id, what: nameOf(c), field, before: String(was[field]), after: String(c[field]) })),
    ]
  })
  const gone = [...old.values()].map(c => ({ component: c.id, what: nameOf(c), field: 'row', before: 'there', after: null }))
  const scenarios = JSON.stringify(before.scenarios) === JSON.stringify(after.scenarios) ? [] : [{ component: null, what: 'estimate', field: 'scenarios', before: before.scenarios.map(s => s.name).join(', '), after: after.scenarios.map(s => s.name).join(', ') }]
  return [...whole, ...rows, ...gone, ...scenarios]
}

const whatIsCalled: Record<string, string> = { termYears: 'years of the whole term', useFreeAllowance: 'free allowances counted on', marginPercent: 'margin, %', taxPercent: 'tax, %', cards: 'rate cards', rates: 'exchange rates', dismissed: 'dismissed blind spots', seed: 'seed of the draws' }

