import { addDays, addMonths, monthEnd, monthOf, daysBetween, monthStart } from './day'

/** After a try in vain it is left alone for so long. */
const TRY_AGAIN_MS = 3_600_000

/**
 * Whether what is done in a rhythm is to be done now: it never was, or its time has come round; and a try in vain, if there was one since,
 * is an hour ago.
 * @param lastDone `lastTried` and `now`: instants that a Date reads; null for never.
 */
export function isDue(every: Rhythm, lastDone: string | null, lastTried: string | null, now: string): boolean {
  const time = Date.parse(now)
  const failedAt = lastTried !== null && (lastDone === null || Date.parse(lastTried) > Date.parse(lastDone)) ? Date.parse(lastTried) : null
  if (failedAt !== null && time - failedAt < TRY_AGAIN_MS) return false
  return lastDone === null || Date.parse(nextInRhythm(new Date(lastDone).toISOString(), every)) <= time
}

/** How often something is done by itself. */
export type Rhythm = 'day' | 'week' | 'month'

/**
 * When a rhythm comes round after a moment: a day or seven days later at the same time, or on the same day of the next month, its last
 * day where the next month has no such day.
 * @param after an instant in ISO 8601, UTC.
 */
export function nextInRhythm(after: string, every: Rhythm): string {
  const day = after.slice(0, 10)
  const time = after.slice(10)
  if (every !== 'month') return addDays(day, every === 'day' ? 1 : 7) + time
  const next = addMonths(monthOf(day), 1)
  const same = addDays(monthStart(next), daysBetween(monthStart(monthOf(day)), day))
  const last = addDays(monthEnd(next), -1)
  return (same < last ? same : last) + time
}
