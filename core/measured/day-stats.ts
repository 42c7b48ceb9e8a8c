import { quantile } from './quantile'

/** A day of what was measured of one resource by one metric, in few figures. */
export type DayStats = { least: number; mean: number; p95: number; most: number; hours: number }

/** The figures of a day's hours; null where none was measured. */
export function dayStats(hours: Float32Array): DayStats | null {
  let [least, most, sum, count] = [Infinity, -Infinity, 0, 0]
  for (const value of hours) {
    if (Number.isNaN(value)) continue
    least = Math.min(least, value)
    most = Math.max(most, value)
    sum += value
    count++
  }
  return count ? { least, mean: sum / count, p95: quantile(hours, 95)!, most, hours: count } : null
}
