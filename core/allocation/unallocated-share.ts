import { scaled } from '../money/scaled'
import { COST_CENTRE } from '../spend/dimension'

/** Of a month's bill, what is on no cost centre nor pool, from 0 to 1; null where there is no bill to be a part of. */
export type MonthShare = { month: string; share: number | null }

type Row = { values: Record<string, string | null>; currency: string; start?: string | null; amount: string }

/**
 * What was unallocated of each month, in a currency, the earliest first.
 * @param rows of a question by cost centre and month.
 * @param dimension the cost centres of which tree.
 */
export function unallocatedByMonth(rows: readonly Row[], currency: string, dimension = COST_CENTRE): MonthShare[] {
  const months = new Map<string, { all: bigint; none: bigint }>()
  for (const { values, currency: of, start, amount } of rows) {
    if (of !== currency || !start) continue
    const month = start.slice(0, 7)
    const own = months.get(month) ?? { all: 0n, none: 0n }
    months.set(month, own)
    own.all += scaled(amount)
    if (values[dimension] === null) own.none += scaled(amount)
  }
  return [...months]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([month, { all, none }]) => ({ month, share: all > 0n ? Number((none * 1_000_000n) / all) / 1_000_000 : null }))
}
