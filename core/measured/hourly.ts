import { addDays, weekday, type Day } from '../time/day'
import { quantile } from './quantile'

export const HOURS_A_DAY = 24

/** Hour by hour from the first hour of a day (UTC) on, whole days; NaN for an hour that was not measured. */
export type Hourly = { from: Day; values: Float32Array }

/** How many hours were measured. */
export function measuredHours({ values }: Hourly): number {
  let count = 0
  for (const value of values) if (!Number.isNaN(value)) count++
  return count
}

/** The highest of values; NaN where there is none. */
export function highest(values: Float32Array): number {
  let most = NaN
  for (const value of values) if (!(most >= value) && !Number.isNaN(value)) most = value
  return most
}

/** All values together; NaN where there is none. */
export function total(values: Float32Array): number {
  let [sum, count] = [0, 0]
  for (const value of values) {
    if (Number.isNaN(value)) continue
    sum += value
    count++
  }
  return count ? sum : NaN
}

/** The value that 95 of 100 hours do not exceed; null where nothing was measured. */
export const p95 = ({ values }: Hourly): number | null => quantile(values, 95)

/** What is made of the hours of each day. */
export function dailyOf({ from, values }: Hourly, of: (hours: Float32Array) => number): { day: Day; value: number }[] {
  return Array.from({ length: values.length / HOURS_A_DAY }, (_, i) => ({
    day: addDays(from, i),
    value: of(values.subarray(i * HOURS_A_DAY, (i + 1) * HOURS_A_DAY)),
  }))
}

/** An hour of the week, counted from Monday's first: the highest value of it in all weeks, and how many of them were measured. */
export type WeekHour = { most: number; weeks: number }

/** The 168 hours of a week. */
export function weekOf({ from, values }: Hourly): WeekHour[] {
  const week = Array.from({ length: 7 * HOURS_A_DAY }, (): WeekHour => ({ most: NaN, weeks: 0 }))
  const first = ((weekday(from) + 6) % 7) * HOURS_A_DAY
  values.forEach((value, i) => {
    if (Number.isNaN(value)) return
    const own = week[(first + i) % week.length]!
    own.weeks++
    if (!(own.most >= value)) own.most = value
  })
  return week
}
