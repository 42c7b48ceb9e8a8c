import { HOURLY_DAYS } from '../../core/measured/measured-table'
import { isMetric, metrics } from '../../core/measured/metrics'
import { addDays, type Day } from '../../core/time/day'
import { daysOf } from '../../core/time/period'
import { capabilityOf } from '../connectors/connect'
import type { Connector } from '../connectors/connector'
import type { Db } from '../db/database'
import { unmeasured, type MeasuredDay } from '../observed/measured-block'
import { keepMeasured, measuredDaysKnown } from '../stores/measured'

/** The types whose use is measured for detectors that look at the bill. */
const TYPES = ['server', 'database', 'disk', 'load balancer'] as const
/** Days over which a service may still tell more of what is over. */
const LATE_DAYS = 1
/** So many days are asked for at a time: one is on its way while another is read. */
const AT_ONCE = 4

/**
 * Asks a connection for what was measured of all resources of the types that detectors look at, day by day, and keeps it. Days that are
 * over and known are not asked for again. What is measured in another unit than ours is left. @returns whether anything new was told.
 */
export async function measure(db: Db, connector: Connector, today: Day): Promise<boolean> {
  const told = capabilityOf(connector, 'measurements')
  let isNew = false
  for (const type of TYPES)
    for (const { metric, unit } of await told.metrics(type)) {
      if (!isMetric(metric) || metrics[metric].unit !== unit) continue
      const of = { connection: connector.name, type, metric }
      const from = addDays(today, 1 - HOURLY_DAYS)
      const known = await measuredDaysKnown(db, of, from, today)
      const anew = new Map<Day, MeasuredDay>()
      const asked = daysOf({ start: from, end: addDays(today, 1) }).filter(day => !known.has(day) || day >= addDays(today, -LATE_DAYS))
      for (let first = 0; first < asked.length; first += AT_ONCE) {
        const days = asked.slice(first, first + AT_ONCE)
        const answers = await Promise.all(days.map(day => told.ofDay(type, metric, day)))
        for (const [at, measured] of answers.entries())
          if (measured.length || known.has(days[at]!)) anew.set(days[at]!, new Map(measured.map(({ id, hours }) => [id, inHours(hours)])))
      }
      if (!anew.size) continue
      await keepMeasured(db, of, anew)
      isNew = true
    }
  return isNew
}

function inHours(told: readonly (number | null)[]): Float32Array {
  const hours = unmeasured()
  for (const [hour, value] of told.entries()) if (value !== null) hours[hour] = value
  return hours
}
