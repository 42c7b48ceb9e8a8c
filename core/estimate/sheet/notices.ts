import { evaluate } from '../../working/working'
import { findKind } from '../components'
import type { Component, Estimate } from '../estimate'
import { numberText, readNumber } from './number-text'
import type { PricedComponent } from '../pricing/price-estimate'
import type { PricedEstimate } from '../pricing/priced'

/** Something about a row that one should know before believing its price. */
export type Notice = { component: string; text: string; duplicateOf?: string }

/** The dismissal under which a duplicate that is meant is kept. */
export const keptDuplicate = (component: string) => `duplicate ${component}`

/** Rows that are there twice, and what the pricing of a row has to say. */
export function findNotices(estimate: Estimate, priced: PricedEstimate): Notice[] {
  const kept = new Set(estimate.dismissed.map(d => d.blindSpot))
  const first = new Map<string, Component>()
  return estimate.components.flatMap((component): Notice[] => {
    const row = priced.byId.get(component.id)!
    const notices = [...(row.charges?.notices ?? []), ...partTimeNotice(row)].map(text => ({ component: component.id, text }))
    const key = sameness(component)
    const before = first.get(key)
    if (!before) first.set(key, component)
    else if (!kept.has(keptDuplicate(component.id)))
      return [{ component: component.id, duplicateOf: before.id, text: 'The same component is here twice.' }, ...notices]
    return notices
  })
}

const sameness = ({ part, kind, inputs }: Component) =>
  JSON.stringify([part, kind, Object.entries(inputs).sort(([a], [b]) => (a < b ? -1 : 1))])

/** A commitment that costs more than paying as it runs, because it is charged for all hours and the component runs fewer. */
function partTimeNotice({ ways, chosen }: PricedComponent): string[] {
  if (!chosen?.breakEvenHours || !ways[0]) return []
  const more = evaluate(chosen.effectiveMonthly).minus(evaluate(ways[0].effectiveMonthly))
  return more.gt(0)
    ? [
        `Paying on-demand costs less: the commitment is charged for all hours and pays from ${evaluate(chosen.breakEvenHours).round(0, 3).toFixed()} hours a month.`,
      ]
    : []
}

/** Two rows of the same as one: their counts, or where they have none their amounts, are added up. @returns null when they cannot be. */
export function mergeRows(into: Component, other: Component): Component | null {
  const kind = findKind(into.kind)
  const field =
    kind?.fields.find(f => f.column === 'count' && f.type === 'number') ??
    kind?.fields.find(f => f.column === 'amount' && f.type === 'number')
  if (!kind || kind.kind !== other.kind || !field) return null
  const [a, b] = [readNumber(into.inputs[field.name] ?? ''), readNumber(other.inputs[field.name] ?? '')]
  if (!a || !b) return null
  const both = { low: a.low.plus(b.low), likely: a.likely.plus(b.likely), high: a.high.plus(b.high), isRange: a.isRange || b.isRange }
  return { ...into, inputs: { ...into.inputs, [field.name]: numberText(both) } }
}
