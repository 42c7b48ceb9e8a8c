import { scaled, scaledText, type Scaled } from '../money/scaled'
import { unitPriceText } from '../spend/figure'
import { addDays, monthEnd, type Day } from '../time/day'
import { datesOf, type MeasureGrain } from './business-measure'

/** A month's cost of something, what was counted of it, and what one of them costs. */
export type UnitCost = {
  month: string
  /** Null where it is not known in the currency asked for. */
  cost: string | null
  /** What is counted so far; null where nothing is. */
  quantity: string | null
  /** Days (or the month) that nobody has told: then what one costs is not defined. */
  missing: number
  unitCost: string | null
  /** The last day that is in it, where the month is not over. */
  to: Day | null
}

/**
 * What one of a business measure costs in each month: the month's cost ÷ what was counted in it. Not defined (null) where a day is
 * missing, nothing was counted, or the cost is not known. Of a month that is not over, the days until the charges end; a measure by month
 * is not told for it yet.
 * @param costs by month, as decimal text.
 * @param values by date.
 * @param lastDay the last day with charges.
 * @param unequal months that not all sources have delivered as far: their cost and what was counted are not of the same days.
 * @returns a text of at most twelve decimals each, rounded half away from zero.
 */
export function unitCosts(
  months: readonly string[],
  costs: ReadonlyMap<string, string | null>,
  { grain, values }: { grain: MeasureGrain; values: ReadonlyMap<string, string> },
  lastDay: Day,
  unequal: ReadonlySet<string> = new Set(),
): UnitCost[] {
  return months.map(month => {
    const cost = costs.get(month) ?? null
    const isOver = lastDay >= addDays(monthEnd(month), -1)
    const dates = datesOf(grain, month, isOver ? undefined : addDays(lastDay, 1))
    const told = dates.flatMap(date => values.get(date) ?? [])
    const missing = dates.length - told.length
    const quantity = told.reduce<Scaled>((sum, value) => sum + scaled(value), 0n)
    const isDefined = cost !== null && !unequal.has(month) && dates.length > 0 && missing === 0 && (isOver || grain === 'day')
    return {
      ...{ month, cost, missing, to: isOver ? null : lastDay },
      quantity: told.length ? scaledText(quantity) : null,
      unitCost: isDefined ? unitPriceText(scaled(cost), quantity) : null,
    }
  })
}

/** What one costs over several months: Σ cost ÷ Σ quantity of those in which it is defined; null where that is none. */
export function unitCostOf(months: readonly UnitCost[]): string | null {
  const defined = months.filter(({ unitCost }) => unitCost !== null)
  const sum = (of: 'cost' | 'quantity') => defined.reduce<Scaled>((total, one) => total + scaled(one[of]!), 0n)
  return defined.length ? unitPriceText(sum('cost'), sum('quantity')) : null
}
