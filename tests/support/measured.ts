import type { MetricName } from '../../core/measured/metrics'
import { HOURLY_DAYS, MeasuredTableBuilder, measuredIn, type MeasuredOf } from '../../core/measured/measured-table'
import { addDays, type Day } from '../../core/time/day'

/** What is measured of a resource by the hour, counted from the first of the thirty days; NaN for nothing. */
export type MeasuredHour = (hour: number, day: Day) => number

/** Thirty days of measurements before a day, of some resources by their metrics. */
export function measuredBefore(end: Day, of: Record<string, Partial<Record<MetricName, MeasuredHour>>>): MeasuredOf {
  const builder = new MeasuredTableBuilder(addDays(end, -1))
  for (let i = 0; i < HOURLY_DAYS; i++) {
    const day = addDays(end, i - HOURLY_DAYS)
    for (const [id, own] of Object.entries(of))
      for (const [metric, value] of Object.entries(own) as [MetricName, MeasuredHour][])
        builder.add({ metric, day, hours: new Map([[id, Float32Array.from({ length: 24 }, (_, hour) => value(i * 24 + hour, day))]]) })
  }
  return measuredIn(builder.table())
}
