import { dailyOf, highest, total, type Hourly } from '../../measured/hourly'
import { metrics, type MetricName } from '../../measured/metrics'
import type { EvidenceSeries } from '../opportunity'

/** So many digits of what was measured are told: values of 32 bits have no more. */
const DIGITS = 6

/** A figure that was worked out, in few digits. */
export const roughly = (value: number): number => Number(value.toPrecision(3))

/** What was measured, without what 32 bits add to it. */
export const told = (value: number): number => Number(value.toPrecision(DIGITS))

/** What was measured of a metric as evidence: of each measured day its highest hour, or all of it. */
export function measuredSeries(metric: MetricName, hourly: Hourly, more: Pick<EvidenceSeries, 'threshold' | 'said'>): EvidenceSeries {
  const { what, unit, ofHour } = metrics[metric]
  const days = dailyOf(hourly, ofHour === 'sum' ? total : highest).filter(({ value }) => !Number.isNaN(value))
  return {
    label: ofHour === 'sum' ? what : `${what}, highest hour of the day`,
    unit,
    metric,
    ...(ofHour === 'highest' && { isHighest: true }),
    days: days.map(({ day, value }) => ({ day, value: told(value) })),
    ...more,
  }
}
