import { and, eq, inArray, isNull, sql } from 'drizzle-orm'
import { loadWords } from '../../core/unit-cost/measure-months'
import type { MeasureGrain, MeasureValue } from '../../core/unit-cost/business-measure'
import type { MeasureList, MeasureLoad } from '../../shared/contracts/measures'
import { alone } from '../db/alone'
import type { Db, Tx } from '../db/database'
import { businessMeasure, measureValue } from '../db/schema'
import { conflict } from '../problems/problem'
import { nameOf } from './names'

/** Which cost centres are looked at; null for all. */
type Centres = readonly string[] | null

export type SavedMeasure = {
  name: string
  unit: string
  grain: MeasureGrain
  tree: string | null
  version: number
  who: string
  savedAt: string
}
const { name, unit, grain, tree, version, who, savedAt } = businessMeasure
const head = { name, unit, grain, tree, version, who: nameOf(who), savedAt }
const ofCentres = (centres: Centres) => (centres ? inArray(measureValue.centre, [...centres]) : undefined)
/** A number as text, without zeros that say nothing. */
const valueText = sql<string>`trim_scale(${measureValue.value})::text`

/** The measures of which something is told for cost centres, of the first tree where some are named, in the order of their names. */
export async function listMeasures(db: Db, centres: Centres): Promise<MeasureList['measures']> {
  const { measure, centre, date } = measureValue
  const rows = await db
    .select({
      ...head,
      centres: sql<number>`count(distinct ${centre})::int`,
      first: sql<string>`min(${date})`,
      last: sql<string>`max(${date})`,
      values: sql<number>`count(*)::int`,
    })
    .from(businessMeasure)
    .innerJoin(measureValue, and(eq(measure, name), ofCentres(centres), centres ? isNull(tree) : undefined))
    .groupBy(name)
    .orderBy(name)
  return rows.map(({ version, who, savedAt, ...row }) => ({ ...row, saved: centres ? null : { version, who, savedAt } }))
}

/** A measure without its values; null where there is none of that name. */
export async function findMeasure(db: Pick<Db, 'select'>, of: string): Promise<SavedMeasure | null> {
  const [row] = await db.select(head).from(businessMeasure).where(eq(name, of))
  return row ?? null
}

/** What is told of a measure for cost centres, by cost centre and date. */
export function measureValues(db: Pick<Db, 'select'>, of: string, centres: Centres): Promise<MeasureValue[]> {
  const { measure, centre, date } = measureValue
  return db
    .select({ centre, date, value: valueText })
    .from(measureValue)
    .where(and(eq(measure, of), ofCentres(centres)))
    .orderBy(centre, date)
}

/** What was counted of a measure, to be kept; `basedOn` is the version that it was held against. */
export type CountedMeasure = MeasureLoad & { name: string; basedOn?: number | undefined }
/** How many values were new and how many others than before. */
export type MeasureDifference = { name: string; added: number; changed: number }

/**
 * Keeps what was counted, in place of what was told for the same cost centres and dates: of all measures or of none. A measure that is
 * there is taken only where `basedOn` is its newest version, or it is polled.
 * @throws Problem with the difference where that is not so, or a measure is another thing by now.
 */
export async function saveMeasures(db: Db, counted: readonly CountedMeasure[], by: string, isPolled = false): Promise<MeasureDifference[]> {
  return alone(db, 'measures', async tx => {
    const found: MeasureDifference[] = []
    for (const one of counted) found.push({ name: one.name, ...(await saveMeasure(tx, one, by, isPolled)) })
    return found
  })
}

async function saveMeasure(
  tx: Tx,
  { name: of, basedOn, ...load }: CountedMeasure,
  by: string,
  isPolled: boolean,
): Promise<{ added: number; changed: number }> {
  const newest = await findMeasure(tx, of)
  const difference = await differenceOf(tx, of, load)
  if (newest) {
    const other = (['unit', 'grain', 'tree'] as const).find(what => newest[what] !== load[what])
    if (other)
      throw conflict(
        `«${of}» is another measure`,
        `Its ${other} is ${newest[other] ?? 'the first'}, not ${load[other] ?? 'the first'}: use another name, or delete it first. Nothing was taken.`,
      )
    if (!isPolled && newest.version !== basedOn)
      throw conflict(
        `There is a measure «${of}» already`,
        `Its version ${newest.version} was saved by ${newest.who}. Beside it this load means: ${loadWords(difference)}. Nothing was taken; to take it all the same, send it with basedOn ${newest.version}.`,
      )
    if (!difference.added && !difference.changed) return difference
  }
  const own = { unit: load.unit, grain: load.grain, tree: load.tree, version: (newest?.version ?? 0) + 1, who: by }
  const saved = new Date().toISOString()
  await tx
    .insert(businessMeasure)
    .values({ name: of, ...own, savedAt: saved })
    .onConflictDoUpdate({ target: name, set: { ...own, savedAt: saved } })
  await tx.execute(sql`
    insert into measure_value (measure, centre, date, value)
    select ${of}, r.centre, r.date, r.value from ${listed(load.values)}
    on conflict (measure, centre, date) do update set value = excluded.value`)
  return difference
}

const listed = (values: readonly MeasureValue[]) =>
  sql`jsonb_to_recordset(${JSON.stringify(values)}::jsonb) as r(centre text, date text, value numeric)`

/** How many values of a load are new, and how many are others than those that are kept. */
async function differenceOf(tx: Tx, of: string, { values }: Pick<MeasureLoad, 'values'>): Promise<{ added: number; changed: number }> {
  const [row] = (
    await tx.execute<{ added: number; changed: number }>(sql`
      select count(*) filter (where v.value is null)::int as added, count(*) filter (where v.value <> r.value)::int as changed
      from ${listed(values)}
      left join measure_value v on v.measure = ${of} and v.centre = r.centre and v.date = r.date`)
  ).rows
  return { added: row!.added, changed: row!.changed }
}

/** Takes a measure away with all that was told of it. @returns whether there was one. */
export async function dropMeasure(db: Db, of: string): Promise<boolean> {
  return (await db.delete(businessMeasure).where(eq(name, of)).returning({ name })).length > 0
}

/** The last day for which something of a measure was counted, of a month its first; null before anything was. */
export async function lastCounted(db: Pick<Db, 'select'>, of: string): Promise<string | null> {
  const last = sql<string | null>`max(rpad(${measureValue.date}, 10, '-01'))`
  const [row] = await db.select({ last }).from(measureValue).where(eq(measureValue.measure, of))
  return row?.last ?? null
}
