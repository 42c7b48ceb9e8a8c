import { and, desc, eq, gt, gte, inArray, lt, max, sql } from 'drizzle-orm'
import type { OutsideEvent, Resource } from '../../core/opportunity/opportunity'
import type { Making } from '../../core/standing-order/found'
import type { Day } from '../../core/time/day'
import type { Db } from '../db/database'
import { inventoryDay, measuredBlock, measuredFigures, outsideEvent } from '../db/schema'

/** Keeps what a connection lists of a type today. */
export async function keepInventory(db: Db, of: { connection: string; type: string; day: Day }, resources: Resource[]): Promise<void> {
  await db
    .insert(inventoryDay)
    .values({ ...of, resources })
    .onConflictDoUpdate({ target: [inventoryDay.connection, inventoryDay.type, inventoryDay.day], set: { resources } })
}

/** What a connection listed of a type on a day; null where it was not asked. */
export async function findInventory(
  db: Db,
  { connection, type, day }: { connection: string; type: string; day: Day },
): Promise<Resource[] | null> {
  const of = and(eq(inventoryDay.connection, connection), eq(inventoryDay.type, type), eq(inventoryDay.day, day))
  return (await db.select().from(inventoryDay).where(of))[0]?.resources ?? null
}

/** Keeps what has happened; what is known already stays as it was told first. @returns how many were told of for the first time. */
export async function keepEvents(db: Db, connection: string, events: readonly OutsideEvent[]): Promise<number> {
  if (!events.length) return 0
  return db.transaction(async tx => {
    // one after the other: else a number may come to be seen after a later one, and whoever goes by it passes it over
    await tx.execute(sql`lock table ${outsideEvent} in share row exclusive mode`)
    const rows = await tx
      .insert(outsideEvent)
      .values(events.map(event => ({ connection, ...event })))
      .onConflictDoNothing()
      .returning({ id: outsideEvent.id })
    return rows.length
  })
}

/** The day of the last event that is known of a connection; null before any is. */
export async function lastEventDay(db: Pick<Db, 'select'>, connection: string): Promise<Day | null> {
  const [row] = await db
    .select({ last: sql<string | null>`max(${outsideEvent.at})::text` })
    .from(outsideEvent)
    .where(eq(outsideEvent.connection, connection))
  return row?.last?.slice(0, 10) ?? null
}

/** What events call the making of a resource. */
export const CREATED = 'created'

/** Who made resources, as far as any connection has told. */
export const makersOf = (db: Pick<Db, 'selectDistinct'>, ids: readonly string[]): Promise<{ id: string; by: string }[]> =>
  db
    .selectDistinct({ id: outsideEvent.resourceId, by: outsideEvent.by })
    .from(outsideEvent)
    .where(and(eq(outsideEvent.what, CREATED), inArray(outsideEvent.resourceId, [...ids])))
    .orderBy(outsideEvent.by, outsideEvent.resourceId)

/** What tells of the making of resources, by resource, oldest first. */
export async function makingsOf(db: Pick<Db, 'select'>, ids: readonly string[]): Promise<Map<string, Making[]>> {
  const rows = ids.length
    ? await db
        .select()
        .from(outsideEvent)
        .where(and(eq(outsideEvent.what, CREATED), inArray(outsideEvent.resourceId, [...ids])))
        .orderBy(outsideEvent.at, outsideEvent.id)
    : []
  const found = new Map<string, Making[]>()
  for (const { resourceId, id, at, by, raw } of rows)
    found.set(resourceId, [...(found.get(resourceId) ?? []), { id, at: new Date(at).toISOString(), by, raw }])
  return found
}

/** The resources whose making was told after a point, and up to which point all was told. */
export async function madeSince(
  db: Pick<Db, 'select'>,
  after: number,
): Promise<{ resources: { connection: string; id: string }[]; toldTo: number }> {
  const rows = await db
    .select({ connection: outsideEvent.connection, id: outsideEvent.resourceId, told: outsideEvent.told, what: outsideEvent.what })
    .from(outsideEvent)
    .where(gt(outsideEvent.told, after))
    .orderBy(outsideEvent.told)
  const made = new Map(rows.filter(({ what }) => what === CREATED).map(({ connection, id }) => [id, { connection, id }]))
  return { resources: [...made.values()], toldTo: rows.at(-1)?.told ?? after }
}

/** The point up to which all that has happened was told. */
export async function toldSoFar(db: Pick<Db, 'select'>): Promise<number> {
  const [row] = await db.select({ told: max(outsideEvent.told) }).from(outsideEvent)
  return row?.told ?? 0
}

/** The resources that someone made, the newest first. @param most so many of them. */
export async function madeBy(db: Pick<Db, 'select'>, by: string, most: number): Promise<string[]> {
  const rows = await db
    .select({ id: outsideEvent.resourceId })
    .from(outsideEvent)
    .where(and(eq(outsideEvent.what, CREATED), eq(outsideEvent.by, by)))
    .orderBy(desc(outsideEvent.at), outsideEvent.resourceId)
    .limit(most)
  return [...new Set(rows.map(({ id }) => id))]
}

/** What has happened since a day, oldest first. @param resourceIds to which resources; without, to any. */
export async function listEvents(db: Db, connection: string, since: Day, resourceIds?: readonly string[]): Promise<OutsideEvent[]> {
  const rows = await db
    .select()
    .from(outsideEvent)
    .where(
      and(
        eq(outsideEvent.connection, connection),
        gte(outsideEvent.at, since),
        resourceIds && inArray(outsideEvent.resourceId, [...resourceIds]),
      ),
    )
    .orderBy(outsideEvent.at, outsideEvent.id)
  return rows.map(({ connection: _, told: __, at, ...event }) => ({ ...event, at: new Date(at).toISOString() }))
}

/** Forgets what was there and has happened before a day. */
export async function forgetObserved(db: Db, connection: string, before: Day): Promise<void> {
  await db.delete(inventoryDay).where(and(eq(inventoryDay.connection, connection), lt(inventoryDay.day, before)))
  await db.delete(outsideEvent).where(and(eq(outsideEvent.connection, connection), lt(outsideEvent.at, before)))
}

/** Forgets all that came through a connection: another one of its name may be to another service. */
export async function dropObserved(db: Pick<Db, 'delete'>, connection: string): Promise<void> {
  for (const table of [measuredBlock, measuredFigures, inventoryDay, outsideEvent])
    await db.delete(table).where(eq(table.connection, connection))
}
