import { setImmediate as turn } from 'node:timers/promises'
import { and, eq, gte, inArray, lt, lte, max, sql } from 'drizzle-orm'
import type { DayStats } from '../../core/measured/day-stats'
import { HOURLY_DAYS, MeasuredTableBuilder, nothingMeasured, type MeasuredTable } from '../../core/measured/measured-table'
import type { ReadDay } from '../../core/measured/measurement-reader'
import { metricNames, type MetricName } from '../../core/measured/metrics'
import { addDays, monthOf, type Day, type Month } from '../../core/time/day'
import { daysOf } from '../../core/time/period'
import type { Db } from '../db/database'
import { measuredBlock, measuredFigures } from '../db/schema'
import { byMonth, enterDay, figuresIn, FIGURES_WIDTH, partOf } from '../observed/figures-block'
import { packDay, packValues, unpackDay, unpackValues, type MeasuredDay } from '../observed/measured-block'

/** What is measured: a metric of a type, through a connection. */
export type Measured = { connection: string; type: string; metric: string }

const ofMetric = ({ connection, type, metric }: Measured) =>
  and(eq(measuredBlock.connection, connection), eq(measuredBlock.type, type), eq(measuredBlock.metric, metric))

/** What was measured on days, both inclusive, in their order. A damaged block is as one that is not there: it can be asked for anew. */
export async function measuredDays(db: Db, of: Measured, from: Day, to: Day): Promise<Map<Day, MeasuredDay>> {
  const rows = await db
    .select()
    .from(measuredBlock)
    .where(and(ofMetric(of), gte(measuredBlock.day, from), lte(measuredBlock.day, to)))
    .orderBy(measuredBlock.day)
  return new Map(
    rows.flatMap(row => {
      const day = unpackDay(row)
      return day ? [[row.day, day] as const] : []
    }),
  )
}

/** Of which days something is known; damaged or not. */
export async function measuredDaysKnown(db: Pick<Db, 'select'>, of: Measured, from: Day, to: Day): Promise<Set<Day>> {
  const rows = await db
    .select({ day: measuredBlock.day })
    .from(measuredBlock)
    .where(and(ofMetric(of), gte(measuredBlock.day, from), lte(measuredBlock.day, to)))
  return new Set(rows.map(({ day }) => day))
}

/** Keeps what was measured on days in place of what was known of them, hours and figures, all or nothing. */
export async function keepMeasured(db: Db, of: Measured, days: ReadonlyMap<Day, MeasuredDay>): Promise<void> {
  await db.transaction(async tx => {
    for (const [day, measured] of days) {
      const block = packDay(measured)
      await tx
        .insert(measuredBlock)
        .values({ ...of, day, ...block })
        .onConflictDoUpdate({ target: [measuredBlock.connection, measuredBlock.type, measuredBlock.metric, measuredBlock.day], set: block })
    }
    for (const [month, own] of byMonth(days)) await keepFigures(tx, of, month, own)
  })
}

async function keepFigures(
  db: Pick<Db, 'select' | 'insert'>,
  of: Measured,
  month: Month,
  days: ReadonlyMap<Day, MeasuredDay>,
): Promise<void> {
  const { connection, type, metric } = measuredFigures
  const isOf = and(eq(connection, of.connection), eq(type, of.type), eq(metric, of.metric), eq(measuredFigures.month, month))
  const rows = await db.select().from(measuredFigures).where(isOf)
  const parts = new Map(rows.map(row => [row.part, unpackValues(row, FIGURES_WIDTH) ?? new Map<string, Float32Array>()]))
  for (const [day, measured] of days) {
    enterDay(parts, day, measured)
    await turn() // a day of many resources takes a moment
  }
  if (!parts.size) return
  await db
    .insert(measuredFigures)
    .values([...parts].map(([part, own]) => ({ ...of, month, part, ...packValues(own, FIGURES_WIDTH) })))
    .onConflictDoUpdate({
      target: [connection, type, metric, measuredFigures.month, measuredFigures.part],
      set: { resources: sql`excluded.resources`, bytes: sql`excluded.bytes` },
    })
}

/** Measurements that came as files, not through a connection. */
export const BY_FILE = ''

/**
 * Adds what a file says to what files have said before: hours that it tells hold in place of those known. What is long before the newest
 * that files tell is forgotten. All or nothing.
 */
export async function addMeasured(db: Db, read: readonly ReadDay[]): Promise<void> {
  const byMetric = new Map<MetricName, ReadDay[]>()
  for (const one of read) byMetric.set(one.metric, [...(byMetric.get(one.metric) ?? []), one])
  await db.transaction(async tx => {
    for (const [metric, days] of byMetric) {
      const of = { connection: BY_FILE, type: '', metric }
      const whole = new Map<Day, MeasuredDay>()
      for (const { day, hours } of days) {
        const own = new Map((await measuredDays(tx as Db, of, day, day)).get(day))
        for (const [id, told] of hours) {
          const before = own.get(id)
          own.set(id, before ? told.map((value, hour) => (Number.isNaN(value) ? before[hour]! : value)) : told)
        }
        whole.set(day, own)
      }
      await keepMeasured(tx as Db, of, whole)
    }
    const isFiled = eq(measuredBlock.connection, BY_FILE)
    const [row] = await tx
      .select({ newest: max(measuredBlock.day) })
      .from(measuredBlock)
      .where(isFiled)
    await forgetMeasured(tx, BY_FILE, row!.newest!)
  })
}

/** How long is kept what was measured by the hour, and the figures of its days. */
export const MEASURED_DAYS_KEPT = 45
export const FIGURES_DAYS_KEPT = 400

/** Forgets what a connection, or files, measured long before a day. @param days hours of so many days stay, at least. */
export async function forgetMeasured(db: Pick<Db, 'delete'>, connection: string, today: Day, days = MEASURED_DAYS_KEPT): Promise<void> {
  const { day, month } = { day: addDays(today, -Math.max(days, MEASURED_DAYS_KEPT)), month: monthOf(addDays(today, -FIGURES_DAYS_KEPT)) }
  await db.delete(measuredBlock).where(and(eq(measuredBlock.connection, connection), lt(measuredBlock.day, day)))
  await db.delete(measuredFigures).where(and(eq(measuredFigures.connection, connection), lt(measuredFigures.month, month)))
}

/** The newest day of which something was measured. */
async function newestMeasured(db: Pick<Db, 'select'>): Promise<Day | null> {
  const [row] = await db
    .select({ newest: max(measuredBlock.day) })
    .from(measuredBlock)
    .where(isKnown)
  return row?.newest ?? null
}
const isKnown = inArray(measuredBlock.metric, [...metricNames])

/** What was measured lately, whoever told it, in memory that threads share; of what came as a file and by a connection the latter holds. */
export async function measuredLately(db: Db): Promise<MeasuredTable> {
  const newest = await newestMeasured(db)
  if (newest === null) return nothingMeasured
  const builder = new MeasuredTableBuilder(newest, size => new Float32Array(new SharedArrayBuffer(size * 4)))
  for (const day of daysOf({ start: addDays(newest, 1 - HOURLY_DAYS), end: addDays(newest, 1) })) {
    const blocks = await db
      .select()
      .from(measuredBlock)
      .where(and(isKnown, eq(measuredBlock.day, day)))
      .orderBy(measuredBlock.connection, measuredBlock.type)
    for (const { metric, ...block } of blocks) {
      const hours = unpackDay(block)
      if (hours) builder.add({ metric: metric as MetricName, day, hours })
    }
  }
  return builder.table()
}

/** What was measured of a resource, day by day, whoever told it. */
export async function figuresOf(db: Pick<Db, 'select'>, resource: string): Promise<{ metric: string; day: Day; figures: DayStats }[]> {
  const rows = await db
    .select()
    .from(measuredFigures)
    .where(and(eq(measuredFigures.part, partOf(resource)), sql`${measuredFigures.resources} @> ${JSON.stringify([resource])}::jsonb`))
    .orderBy(measuredFigures.metric, measuredFigures.month, measuredFigures.connection, measuredFigures.type)
  return rows.flatMap(({ metric, month, ...block }) => figuresIn(month, block, resource).map(one => ({ metric, ...one })))
}

/** Which metrics came as files, on which days, and of how many resources on the day with most of them. */
export const filedMeasurements = (
  db: Pick<Db, 'select'>,
): Promise<{ metric: string; days: number; first: string; last: string; resources: number }[]> =>
  db
    .select({
      metric: measuredBlock.metric,
      days: sql<number>`count(*)::int`,
      first: sql<string>`min(${measuredBlock.day})::text`,
      last: sql<string>`max(${measuredBlock.day})::text`,
      resources: sql<number>`max(jsonb_array_length(${measuredBlock.resources}))::int`,
    })
    .from(measuredBlock)
    .where(eq(measuredBlock.connection, BY_FILE))
    .groupBy(measuredBlock.metric)
    .orderBy(measuredBlock.metric)

/** Takes away what came as files. @returns on how many days and metrics there was something. */
export async function dropFiled(db: Db): Promise<number> {
  return db.transaction(async tx => {
    await tx.delete(measuredFigures).where(eq(measuredFigures.connection, BY_FILE))
    const gone = await tx.delete(measuredBlock).where(eq(measuredBlock.connection, BY_FILE)).returning({ day: measuredBlock.day })
    return new Set(gone.map(({ day }) => day)).size
  })
}
