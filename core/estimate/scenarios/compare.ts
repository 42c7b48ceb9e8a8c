import { Decimal, decimalText, type DecimalText } from '../../money/decimal'
import { evaluate, type Working } from '../../working/working'
import { figureOf, type FigureName, type PricedEstimate } from '../price-estimate'

/** A figure beside the same of the first scenario. `share` is the difference as a share of the first; null when that is zero. */
export type Difference = { amount: DecimalText, share: DecimalText | null }

export function difference(first: Working | null, other: Working | null): Difference {
  const [a, b] = [first, other].map(w => w ? evaluate(w) : new Decimal(0)) as [Decimal, Decimal]
  return { amount: decimalText(b.minus(a)), share: a.eq(0) ? null : decimalText(b.minus(a).div(a)) }
}

/** Differences of a scenario to the first, by row and in total. */
export function compareScenarios(first: PricedEstimate, other: PricedEstimate, name: FigureName): { rows: Map<string, Difference>, total: Difference } {
  const figure = (priced: PricedEstimate, id: string) => {
    const chosen = priced.counted.has(id) ? priced.byId.get(id)?.chosen : null
    return chosen ? figureOf(chosen, name, priced.termYears) : null
  }
  return { rows: new Map(first.rows.map(row => [row.id, difference(figure(first, row.id), figure(other, row.id))])), total: difference(first.total[name], other.total[name]) }
}
