import { addMonths, monthEnd, type Day } from '../../time/day'

/** The month that adjustments of closed months arrive in: the first after them; null before one is closed. */
export function firstOpenMonth(closed: readonly string[]): string | null {
  const last = [...closed].sort().at(-1)
  return last === undefined ? null : addMonths(last, 1)
}

/**
 * What keeps a month from being closed, in words; null where nothing does. The first month to be closed may be any; from then on one
 * follows the other, so that what changes of a closed month has one month to arrive in.
 * @param today the day in UTC.
 */
export function closingBarrier(month: string, closed: readonly string[], today: Day): string | null {
  if (closed.includes(month)) return 'it is closed already'
  const next = firstOpenMonth(closed)
  if (next !== null && month < next) return `closing began with ${[...closed].sort()[0]}, and months before that stay open`
  if (next !== null && month > next) return `${next} is closed before it`
  return today < monthEnd(month) ? `it lasts until the end of ${month}` : null
}
