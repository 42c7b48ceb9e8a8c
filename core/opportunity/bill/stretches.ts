import { addDays, daysBetween, ESTIMATE_MONTH_HOURS, type Day } from '../../time/day'

/** How far back, in days from the last that is delivered whole, what was charged is told apart. */
export const lookBacks = [60, 30, 14, 7, 3] as const
export type LookBack = (typeof lookBacks)[number]

/** Days of the month that estimates and savings are told in. */
export const DAYS_OF_A_MONTH = ESTIMATE_MONTH_HOURS / 24

/**
 * The stretches of time that what was charged is summed in: all before the first look-back, then from each to the next.
 * @param end exclusive.
 */
export function stretchesBefore(end: Day): Day[] {
  return ['1970-01-01', ...lookBacks.map(days => addDays(end, -days))]
}

/** The first stretch of a look-back: it and all after it are within. */
export const stretchOf = (days: LookBack): number => lookBacks.indexOf(days) + 1

/** A bill's last whole month of days: from when to when (exclusive), and how many days of it the bill has at all. */
export type Window = { from: Day; end: Day; days: number }

/** The look-back of a bill that begins on a day: shorter where it does not reach so far. */
export function windowOf(end: Day, firstDay: Day, most: LookBack = 30): Window {
  const from = addDays(end, -most)
  const first = firstDay > from ? firstDay : from
  return { from: first, end, days: daysBetween(first, end) }
}
