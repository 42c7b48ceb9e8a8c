/** A calendar day in UTC, written `2026-11-23`. Days sort as text. */
export type Day = string
/** A calendar month, written `2026-11`. */
export type Month = string

const MS_A_DAY = 86_400_000

/** Whether the text is a day that the calendar has. */
export function isDay(text: string): boolean {
  return /^\d{4}-\d{2}-\d{2}$/.test(text) && dayFromNumber(dayNumber(text)) === text
}

/** Days since 1 January 1970. */
export function dayNumber(day: Day): number {
  return Date.UTC(Number(day.slice(0, 4)), Number(day.slice(5, 7)) - 1, Number(day.slice(8, 10))) / MS_A_DAY
}

export function dayFromNumber(number: number): Day {
  return new Date(number * MS_A_DAY).toISOString().slice(0, 10)
}

export function addDays(day: Day, days: number): Day {
  return dayFromNumber(dayNumber(day) + days)
}

/** Whole days from `start` to `end` (exclusive). */
export function daysBetween(start: Day, end: Day): number {
  return dayNumber(end) - dayNumber(start)
}

/** 0 Sunday to 6 Saturday. */
export function weekday(day: Day): number {
  return (dayNumber(day) + 4) % 7
}

export function monthOf(day: Day): Month {
  return day.slice(0, 7)
}

/** First day of the month. */
export function monthStart(month: Month): Day {
  return `${month}-01`
}

export function addMonths(month: Month, months: number): Month {
  const index = Number(month.slice(0, 4)) * 12 + Number(month.slice(5, 7)) - 1 + months
  return `${String(Math.floor(index / 12)).padStart(4, '0')}-${String((index % 12) + 1).padStart(2, '0')}`
}

/** First day after the month: a month is half-open. */
export function monthEnd(month: Month): Day {
  return monthStart(addMonths(month, 1))
}

/** Real hours of a calendar month: 744 in October. */
export function hoursOfMonth(month: Month): number {
  return daysBetween(monthStart(month), monthEnd(month)) * 24
}

/** The hours of the month that estimates use: 8 760 / 12 (common practice, no source). */
export const ESTIMATE_MONTH_HOURS = 730
