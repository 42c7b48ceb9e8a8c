import { HOURLY_DAYS } from '../../core/measured/measured-table'
import { isMetric, metrics } from '../../core/measured/metrics'
import { addDays, type Day } from '../../core/time/day'
import { daysOf } from '../../core/time/period'
import { capabilityOf } from '../connectors/connect'
import type { Connector } from '../connectors/connector'
import type { Db } from '../db/database'
import type { MeasuredDay } from '../observed/measured-block'
import { keepMeasured, measuredDaysKnown } from '../stores/measured'

/** The types whose use is measured for detectors that look at the bill. */
const TYPES = ['server', 'database', 'disk', 'load balancer'] as const
/** Days over which a service may still tell more of what is over. */
const LATE_DAYS = 1

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
      for (const day of daysOf({ start: from, end: addDays(today, 1) })) {
        if (known.has(day) && day < addDays(today, -LATE_DAYS)) continue
        const measured = (await told.ofDay(type, metric, day)).map(
          ({ id, hours }) => [id, Float32Array.from(hours, hour => hour ?? NaN)] as const,
        )
        if (measured.length || known.has(day)) anew.set(day, new Map(measured))
      }
      if (!anew.size) continue
      await keepMeasured(db, of, anew)
      isNew = true
    }
  return isNew
}
