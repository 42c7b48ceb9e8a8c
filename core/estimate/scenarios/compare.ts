import { Decimal, decimalText, zero, type DecimalText } from '../../money/decimal'
import { evaluate, type Working } from '../../working/working'
import type { Estimate, Scenario } from '../estimate'
import { figuresOf, type FigureName } from '../pricing/figures'
import { figureOf, priceEstimate, type Prices } from '../pricing/price-estimate'
import { MUTED } from '../pricing/overrides'
import type { PricedEstimate } from '../pricing/priced'
import type { PriceMemo } from '../pricing/price-memo'

/** A figure beside the same of the first scenario. `share` is the difference as a share of the first; null when that is zero. */
export type Difference = { amount: DecimalText; share: DecimalText | null }

export function difference(first: Working | null, other: Working | null): Difference {
  const [a, b] = [first, other].map(w => (w ? evaluate(w) : zero)) as [Decimal, Decimal]
  return { amount: decimalText(b.minus(a)), share: a.eq(0) ? null : decimalText(b.minus(a).div(a)) }
}

/** Rows that a total lacks: how many, and what they cost in the column that prices them; null where none does, or none all of them. */
export type NotCounted = { rows: number; amounts: Record<FigureName, DecimalText> | null }

/**
 * What a column lacks beside another: rows that should be counted there and cannot be priced.
 * @returns null when it lacks none.
 */
export function notCounted(column: PricedEstimate, beside: PricedEstimate): NotCounted | null {
  if (!column.uncounted.size) return null
  const known = [...column.uncounted].map(id => (beside.counted.has(id) ? beside.byId.get(id)!.chosen : null))
  if (column === beside || known.some(way => !way)) return { rows: column.uncounted.size, amounts: null }
  return {
    rows: known.length,
    amounts: figuresOf(name =>
      decimalText(known.reduce((sum, way) => sum.plus(evaluate(figureOf(way!, name, beside.termYears))), new Decimal(0))),
    ),
  }
}

/** The same estimate with only rows that two columns can both price; the others are muted. */
export function withOnlyPriced(estimate: Estimate, columns: readonly PricedEstimate[]): Estimate {
  const lacking = new Set(columns.flatMap(column => [...column.uncounted]))
  return lacking.size
    ? { ...estimate, components: estimate.components.map(c => (lacking.has(c.id) ? { ...c, muted: true } : c)) }
    : estimate
}

export type Comparison = {
  /** By row; null where one of the two cannot price it: it is not compared. */
  rows: Map<string, Difference | null>
  /** Over the rows that both can price, with all that comes on top of them. */
  total: Difference
  /** Rows that the other column lacks, and what they cost in the first. */
  lacks: NotCounted | null
}

/**
 * Differences of a column to the first, by row and in total. The total's is taken over the rows that both can price: rows that one of them
 * lacks are left out of both, with what they add to support, credits, margin and tax.
 */
export function compareScenarios(
  estimate: Estimate,
  prices: Prices,
  first: PricedEstimate,
  other: PricedEstimate,
  name: FigureName,
  memo?: PriceMemo,
): Comparison {
  const figure = (priced: PricedEstimate, id: string) => {
    const chosen = priced.counted.has(id) ? priced.byId.get(id)?.chosen : null
    return chosen ? figureOf(chosen, name, priced.termYears) : null
  }
  const lacksAny = (id: string) => first.uncounted.has(id) || other.uncounted.has(id)
  const rows = new Map(first.rows.map(row => [row.id, lacksAny(row.id) ? null : difference(figure(first, row.id), figure(other, row.id))]))
  const [a, b] = alike(estimate, prices, first, other, memo)
  return { rows, total: difference(a.total[name], b.total[name]), lacks: notCounted(other, first) }
}

/** Both columns over the rows that both can price. */
export function alike(
  estimate: Estimate,
  prices: Prices,
  first: PricedEstimate,
  other: PricedEstimate,
  memo?: PriceMemo,
): [PricedEstimate, PricedEstimate] {
  if (!first.uncounted.size && !other.uncounted.size) return [first, other]
  const restricted = { ...withOnlyPriced(estimate, [first, other]), termYears: first.termYears }
  // what a column brings in again must not bring in what cannot be priced
  const left = (id: string, inputs: Record<string, string>) =>
    first.uncounted.has(id) || other.uncounted.has(id) ? { ...inputs, [MUTED]: 'yes' } : inputs
  const column = ({ change }: PricedEstimate): Scenario => ({
    id: `alike ${change?.id ?? ''}`,
    name: 'alike',
    conditions: [],
    whole: change?.whole ?? {},
    rows: Object.fromEntries(Object.entries(change?.rows ?? {}).map(([id, inputs]) => [id, left(id, inputs)])),
  })
  return [priceEstimate(restricted, prices, column(first), memo), priceEstimate(restricted, prices, column(other), memo)]
}
