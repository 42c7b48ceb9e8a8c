import type { Needs } from '../../core/opportunity/detector'
import type { Reading, Resource } from '../../core/opportunity/opportunity'
import { addDays, type Day } from '../../core/time/day'
import { daysOf } from '../../core/time/period'
import { capabilityOf } from '../connectors/connect'
import type { Connector } from '../connectors/connector'
import type { Db } from '../db/database'
import { hourOf, unmeasured, type MeasuredDay } from '../observed/measured-block'
import { forgetMeasured, keepMeasured, measuredDays, type Measured } from '../stores/measured'
import { forgetObserved, keepEvents, keepInventory } from '../stores/observed'

/** How long what was there and has happened is kept. */
const DAYS_KEPT = 400
/** Days over which a service may still tell more of what is over. */
const LATE_DAYS = 1

/**
 * Asks a connection for what detectors need of it and keeps it: what is there today, what was measured since the last time, what has
 * happened. What is known of days that are over is not asked for again.
 */
export async function observe(db: Db, connector: Connector, needs: readonly Needs[], today: Day): Promise<void> {
  const connection = connector.name
  for (const [type, metrics] of byType(needs)) {
    const resources = await capabilityOf(connector, 'inventory').resources(type)
    await keepInventory(db, { connection, type, day: today }, resources)
    for (const [metric, days] of metrics) {
      const of = { connection, type, metric }
      const from = addDays(today, -days)
      const known = await measuredDays(db, of, from, today)
      const changed = await measureAnew(connector, of, resources, known, { from, today })
      await keepMeasured(db, of, changed)
    }
  }
  const days = needs.flatMap(({ events }) => (events ? [events.days] : []))
  if (days.length) await keepEvents(db, connection, await capabilityOf(connector, 'events').since(addDays(today, -Math.max(...days))))
  await forgetMeasured(db, connection, today, Math.max(0, ...longest(needs)))
  await forgetObserved(db, connection, addDays(today, -DAYS_KEPT))
}

const longest = (needs: readonly Needs[]) => needs.flatMap(({ measurements }) => (measurements ?? []).map(({ days }) => days))

/** By type the metrics that are needed, each over the longest time that anything needs it. */
function byType(needs: readonly Needs[]): Map<string, Map<string, number>> {
  const types = new Map<string, Map<string, number>>()
  for (const { inventory, measurements } of needs) {
    const metrics = types.get(inventory) ?? new Map<string, number>()
    for (const { metric, days } of measurements ?? []) metrics.set(metric, Math.max(days, metrics.get(metric) ?? 0))
    types.set(inventory, metrics)
  }
  return types
}

/** Asks for what is not known of each resource. @returns the days of which more is known now, whole. */
async function measureAnew(
  connector: Connector,
  { type, metric }: Measured,
  resources: readonly Resource[],
  known: ReadonlyMap<Day, MeasuredDay>,
  { from, today }: { from: Day; today: Day },
): Promise<Map<Day, MeasuredDay>> {
  const end = addDays(today, 1)
  const changed = new Map<Day, MeasuredDay>()
  const dayAnew = (day: Day) => {
    const anew = changed.get(day) ?? new Map(known.get(day))
    changed.set(day, anew)
    return anew
  }
  const late = addDays(today, -LATE_DAYS)
  const over = daysOf({ start: from, end: late })
  for (const { id } of resources) {
    const first = over.find(day => !known.get(day)?.has(id)) ?? late
    const readings = await capabilityOf(connector, 'measurements').readings({ type, id }, metric, first, end)
    for (const [day, hours] of hoursByDay(readings, daysOf({ start: first, end }))) dayAnew(day).set(id, hours)
  }
  return changed
}

/** Readings as the hours of each of some days; what lies outside them is left out. */
function hoursByDay(readings: readonly Reading[], days: readonly Day[]): Map<Day, Float32Array> {
  const byDay = new Map(days.map(day => [day, unmeasured()]))
  for (const reading of readings) {
    const hours = byDay.get(reading.at.slice(0, 10))
    if (hours) hours[hourOf(reading)] = reading.value
  }
  return byDay
}
