import { addDays, addMonths, daysBetween, monthEnd, monthOf, monthStart, type Day } from './day'

/** Half-open in UTC: `start` belongs to it, `end` does not. */
export type Period = { start: Day; end: Day }

/**
 * What a period is compared with: whole months with as many whole months before, the beginning of a month with the same days of the
 * month before, anything else with the same number of days directly before.
 */
export function periodBefore(period: Period): Period {
  if (isWholeMonths(period)) {
    const months = monthsIn(period)
    return { start: monthStart(addMonths(monthOf(period.start), -months)), end: period.start }
  }
  const last = addDays(period.end, -1)
  if (period.start.endsWith('-01') && monthOf(period.start) === monthOf(last)) return monthToDate(last).before
  return { start: addDays(period.start, -daysBetween(period.start, period.end)), end: period.start }
}

/** Steps forward (1) or back (−1) by the period's own length; from a month that has begun, to the whole month beside it. */
export function periodStep(period: Period, step: 1 | -1): Period {
  const month = monthOf(period.start)
  if (period.start.endsWith('-01') && period.end < monthEnd(month)) {
    const beside = addMonths(month, step)
    return { start: monthStart(beside), end: monthEnd(beside) }
  }
  if (isWholeMonths(period)) {
    const months = monthsIn(period) * step
    return { start: monthStart(addMonths(monthOf(period.start), months)), end: monthStart(addMonths(monthOf(period.end), months)) }
  }
  const days = daysBetween(period.start, period.end) * step
  return { start: addDays(period.start, days), end: addDays(period.end, days) }
}

export function isWholeMonths(period: Period): boolean {
  return period.start.endsWith('-01') && period.end.endsWith('-01')
}

function monthsIn(period: Period): number {
  const index = (day: Day) => Number(day.slice(0, 4)) * 12 + Number(day.slice(5, 7))
  return index(period.end) - index(period.start)
}

/**
 * The month of `last` up to and with that day, and the same days of the month before (fewer when that month is shorter).
 */
export function monthToDate(last: Day): { current: Period; before: Period } {
  const month = monthOf(last)
  const current = { start: monthStart(month), end: addDays(last, 1) }
  const previous = addMonths(month, -1)
  const sameDays = addDays(monthStart(previous), daysBetween(current.start, current.end))
  const end = monthEnd(previous)
  return { current, before: { start: monthStart(previous), end: sameDays < end ? sameDays : end } }
}

/** Every day of the period. */
export function daysOf({ start, end }: Period): Day[] {
  const days: Day[] = []
  for (let day = start; day < end; day = addDays(day, 1)) days.push(day)
  return days
}
