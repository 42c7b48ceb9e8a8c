import { addDays, addMonths, monthEnd, monthOf, daysBetween, monthStart } from './day'

export const everyUnits = ['minute', 'hour', 'day', 'week', 'month'] as const
export type EveryUnit = (typeof everyUnits)[number]

/** How often something is done by itself: every so many minutes, hours, days, weeks or months. */
export type Every = {
  count: number
  unit: EveryUnit
  /** The day of the month that is meant, where a shorter month has moved it to its last. */
  day?: number
}

const MILLISECONDS = { minute: 60_000, hour: 3_600_000 }

/**
 * When it comes round after a moment: minutes or hours later; days or weeks later at the same time; or on the same day of a later month,
 * its
 * last day where that month has no such day.
 * @param after an instant in ISO 8601, UTC.
 */
export function nextAfter({ count, unit, day: wanted }: Every, after: string): string {
  if (unit === 'minute' || unit === 'hour') return new Date(Date.parse(after) + count * MILLISECONDS[unit]).toISOString()
  const day = after.slice(0, 10)
  const time = after.slice(10)
  if (unit !== 'month') return addDays(day, unit === 'day' ? count : 7 * count) + time
  const next = addMonths(monthOf(day), count)
  const same = addDays(monthStart(next), wanted === undefined ? daysBetween(monthStart(monthOf(day)), day) : wanted - 1)
  const last = addDays(monthEnd(next), -1)
  return (same < last ? same : last) + time
}

/**
 * When what was due and has been done is due again, always after now. Days, weeks and months keep the time at which it was due, and leave
 * out
 * those that have passed; minutes and hours are counted from now, so that what was late does not hurry.
 */
export function nextDue(every: Every, due: string, now: string): string {
  if (every.unit === 'minute' || every.unit === 'hour') return nextAfter(every, now)
  let next = nextAfter(every, due)
  while (Date.parse(next) <= Date.parse(now)) next = nextAfter(every, next)
  return next
}

const LARGER: [minutes: number, unit: EveryUnit][] = [
  [1440, 'day'],
  [60, 'hour'],
]

/** The same in the largest unit that says it without a rest: 120 minutes are two hours. */
export function plainEvery(every: Every): Every {
  const minutes = every.count * (every.unit === 'minute' ? 1 : every.unit === 'hour' ? 60 : NaN)
  const [size, unit] = LARGER.find(([size]) => minutes % size === 0) ?? [1, every.unit]
  return unit === every.unit || Number.isNaN(minutes) ? every : { count: minutes / size, unit }
}

/** `every 5 minutes`, `every day`. */
export function everyWords(every: Every): string {
  const { count, unit } = plainEvery(every)
  return count === 1 ? `every ${unit}` : `every ${count} ${unit}s`
}
