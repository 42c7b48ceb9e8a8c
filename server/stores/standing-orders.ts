import { randomUUID } from 'node:crypto'
import { and, asc, desc, eq, getTableColumns, inArray, sql } from 'drizzle-orm'
import type { OrderDefinition } from '../../core/standing-order/definition'
import type { OrderException } from '../../core/standing-order/verdict'
import type { Day } from '../../core/time/day'
import type { ActionState, ActionStep } from '../../shared/contracts/savings'
import type { RunCause, RunItem, RunState } from '../../shared/contracts/standing-orders'
import type { Db } from '../db/database'
import { orderDeed, orderException, orderFinding, orderRun, standingOrder, type AskedRun } from '../db/schema'

export type StoredOrder = typeof standingOrder.$inferSelect
export type StoredRun = typeof orderRun.$inferSelect
export type StoredDeed = typeof orderDeed.$inferSelect

/** The kind of job that runs an order, and the one job of each. */
export const STANDING_ORDER = 'standing-order'
export const orderJob = (order: string) => `${STANDING_ORDER} ${order}`

export const listOrders = (db: Pick<Db, 'select'>): Promise<StoredOrder[]> =>
  db
    .select()
    .from(standingOrder)
    .orderBy(asc(sql`${standingOrder.definition} ->> 'name'`), standingOrder.id)

export async function findOrder(db: Pick<Db, 'select'>, id: string): Promise<StoredOrder | null> {
  return (await db.select().from(standingOrder).where(eq(standingOrder.id, id)))[0] ?? null
}

export async function addOrder(db: Pick<Db, 'insert'>, definition: OrderDefinition, toldTo: number, who: string): Promise<StoredOrder> {
  return (await db.insert(standingOrder).values({ id: randomUUID(), definition, toldTo, who }).returning())[0]!
}

/** Changes an order: what is another revision has to be tried anew, and is off until it was. @returns null where there is none. */
export async function changeOrder(
  db: Pick<Db, 'update'>,
  id: string,
  definition: OrderDefinition,
  isOther: boolean,
  who: string,
): Promise<StoredOrder | null> {
  const rows = await db
    .update(standingOrder)
    .set({ definition, who, changedAt: sql`now()`, ...(isOther && { revision: sql`${standingOrder.revision} + 1`, isOn: false }) })
    .where(eq(standingOrder.id, id))
    .returning()
  return rows[0] ?? null
}

export async function removeOrder(db: Pick<Db, 'delete'>, id: string): Promise<boolean> {
  return (await db.delete(standingOrder).where(eq(standingOrder.id, id)).returning({ id: standingOrder.id })).length > 0
}

export async function setOrder(
  db: Pick<Db, 'update'>,
  id: string,
  set: Partial<Pick<StoredOrder, 'isOn' | 'triedRevision' | 'toldTo'>>,
): Promise<void> {
  await db.update(standingOrder).set(set).where(eq(standingOrder.id, id))
}

/** Keeps what somebody asks for until it is begun. */
export async function askFor(db: Pick<Db, 'update'>, id: string, asked: AskedRun): Promise<void> {
  await db.update(standingOrder).set({ asked }).where(eq(standingOrder.id, id))
}

/** Takes on what somebody has asked for; null where nobody has. */
export async function takeAsked(db: Db, id: string): Promise<AskedRun | null> {
  return db.transaction(async tx => {
    const [row] = await tx.select({ asked: standingOrder.asked }).from(standingOrder).where(eq(standingOrder.id, id)).for('update')
    if (!row?.asked) return null
    await tx.update(standingOrder).set({ asked: null }).where(eq(standingOrder.id, id))
    return row.asked
  })
}

export async function beginRun(
  db: Pick<Db, 'insert'>,
  run: { order: string; revision: number; isDry: boolean; cause: RunCause; who: string },
): Promise<number> {
  return (
    await db
      .insert(orderRun)
      .values({ ...run, state: 'running' })
      .returning({ id: orderRun.id })
  )[0]!.id
}

/** Keeps how far a run is; with a state that is not `running`, that it has ended. */
export async function noteRun(db: Pick<Db, 'update'>, id: number, state: RunState, said: string, items: RunItem[]): Promise<void> {
  await db
    .update(orderRun)
    .set({ state, said, items, ...(state !== 'running' && { endedAt: sql`now()` }) })
    .where(eq(orderRun.id, id))
}

/** Notes in the newest run of an order that what it asked about a resource is done. */
export async function noteChosen(db: Db, order: string, resourceId: string, does: string, said: string): Promise<void> {
  await db.transaction(async tx => {
    const [run] = await tx.select().from(orderRun).where(eq(orderRun.order, order)).orderBy(desc(orderRun.id)).limit(1).for('update')
    if (!run) return
    const isMeant = (item: RunItem) => item.found.resourceId === resourceId && item.state === 'asked'
    const items = run.items.map(item => (isMeant(item) ? { ...item, state: 'done' as const, does, said } : item))
    await tx.update(orderRun).set({ items }).where(eq(orderRun.id, run.id))
  })
}

/** Ends the runs of an order that a process has left under way. */
export async function endLeftRuns(db: Pick<Db, 'update'>, order: string): Promise<void> {
  await db
    .update(orderRun)
    .set({ state: 'not whole', endedAt: sql`now()`, said: 'The process ended over it; the next run goes on where it was.' })
    .where(and(eq(orderRun.order, order), eq(orderRun.state, 'running')))
}

export async function findRun(db: Pick<Db, 'select'>, id: number): Promise<StoredRun | null> {
  return (await db.select().from(orderRun).where(eq(orderRun.id, id)))[0] ?? null
}

/** The newest runs of each order without what they found, but how many of it are in which state. */
export async function listRuns(db: Pick<Db, 'select'>, most: number) {
  const rank = sql<number>`row_number() over (partition by ${orderRun.order} order by ${orderRun.id} desc)`.as('rank')
  const ranked = db.select({ id: orderRun.id, rank }).from(orderRun).as('ranked')
  const { items: _, ...columns } = getTableColumns(orderRun)
  // of those alone that are shown: a run may have found very much
  const counts = sql<Record<string, number>>`(select coalesce(jsonb_object_agg(state, n), '{}') from
    (select item ->> 'state' as state, count(*) as n from jsonb_array_elements(${orderRun.items}) item group by 1) own)`
  return db
    .select({ ...columns, counts })
    .from(orderRun)
    .innerJoin(ranked, eq(ranked.id, orderRun.id))
    .where(sql`${ranked.rank} <= ${most}`)
    .orderBy(desc(orderRun.id))
}
export type RunHead = Awaited<ReturnType<typeof listRuns>>[number]

/** Forgets the oldest runs of an order beyond so many. */
export async function forgetRuns(db: Pick<Db, 'delete' | 'select'>, order: string, most: number): Promise<void> {
  const kept = db.select({ id: orderRun.id }).from(orderRun).where(eq(orderRun.order, order)).orderBy(desc(orderRun.id)).limit(most)
  await db.delete(orderRun).where(and(eq(orderRun.order, order), sql`${orderRun.id} not in ${kept}`))
}

/** Notes what an order finds: since today, where it did not before; what it finds no more begins anew the next time. */
export async function noteFindings(db: Db, order: string, resourceIds: readonly string[], today: Day): Promise<Map<string, Day>> {
  return db.transaction(async tx => {
    const known = await tx.select().from(orderFinding).where(eq(orderFinding.order, order))
    const now = new Set(resourceIds)
    const gone = known.flatMap(({ resourceId }) => (now.has(resourceId) ? [] : [resourceId]))
    if (gone.length) await tx.delete(orderFinding).where(and(eq(orderFinding.order, order), inArray(orderFinding.resourceId, gone)))
    const since = new Map(known.filter(({ resourceId }) => now.has(resourceId)).map(one => [one.resourceId, one.since]))
    const fresh = [...now].filter(id => !since.has(id))
    if (fresh.length) await tx.insert(orderFinding).values(fresh.map(resourceId => ({ order, resourceId, since: today })))
    for (const id of fresh) since.set(id, today)
    return since
  })
}

/** Since when an order has found what it finds. */
export async function findingsOf(db: Pick<Db, 'select'>, order: string): Promise<Map<string, Day>> {
  return new Map((await db.select().from(orderFinding).where(eq(orderFinding.order, order))).map(one => [one.resourceId, one.since]))
}

export async function listExceptions(db: Pick<Db, 'select'>): Promise<(typeof orderException.$inferSelect)[]> {
  return db.select().from(orderException).orderBy(orderException.order, orderException.resourceId)
}

/** Whether an order is still what it was, and on, and which exception there is of a resource. */
export async function orderNow(
  db: Pick<Db, 'select'>,
  { id, revision }: Pick<StoredOrder, 'id' | 'revision'>,
  resourceId: string,
): Promise<{ isSame: boolean; isOn: boolean; exception: OrderException | null }> {
  const [row] = await db
    .select({ revision: standingOrder.revision, isOn: standingOrder.isOn, exception: orderException })
    .from(standingOrder)
    .leftJoin(orderException, and(eq(orderException.order, standingOrder.id), eq(orderException.resourceId, resourceId)))
    .where(eq(standingOrder.id, id))
  return { isSame: row?.revision === revision, isOn: row?.isOn ?? false, exception: row?.exception ?? null }
}

export async function keepException(db: Pick<Db, 'insert'>, order: string, exception: OrderException, who: string): Promise<void> {
  const now = { ...exception, who, at: new Date().toISOString() }
  await db
    .insert(orderException)
    .values({ order, ...now })
    .onConflictDoUpdate({ target: [orderException.order, orderException.resourceId], set: now })
}

export async function removeException(db: Pick<Db, 'delete'>, order: string, resourceId: string): Promise<void> {
  await db.delete(orderException).where(and(eq(orderException.order, order), eq(orderException.resourceId, resourceId)))
}

/** The one deed of an order to a resource in some words, made where there is none. */
export async function deedFor(db: Pick<Db, 'insert' | 'select'>, order: string, resourceId: string, what: string): Promise<StoredDeed> {
  const of = { order, resourceId, what }
  await db
    .insert(orderDeed)
    .values({ ...of, requestKey: randomUUID(), state: 'approved' })
    .onConflictDoNothing()
  const [row] = await db
    .select()
    .from(orderDeed)
    .where(and(eq(orderDeed.order, order), eq(orderDeed.resourceId, resourceId), eq(orderDeed.what, what)))
  return row!
}

/** Whether an order has done something to a resource, or may have, by its words. */
export async function doneBy(db: Pick<Db, 'select'>, order: string): Promise<(resourceId: string, what: string) => StoredDeed | null> {
  const rows = await db
    .select()
    .from(orderDeed)
    .where(and(eq(orderDeed.order, order), inArray(orderDeed.state, ['done', 'sent', 'not known'])))
  const byKey = new Map(rows.map(row => [JSON.stringify([row.resourceId, row.what]), row]))
  return (resourceId, what) => byKey.get(JSON.stringify([resourceId, what])) ?? null
}

export async function findDeed(db: Pick<Db, 'select'>, id: number): Promise<StoredDeed> {
  return (await db.select().from(orderDeed).where(eq(orderDeed.id, id)))[0]!
}

/** Notes where a deed stands, with the step that says it. */
export async function noteDeed(
  db: Pick<Db, 'update'>,
  id: number,
  state: ActionState,
  step: ActionStep,
  more: { tries?: number; anew?: boolean } = {},
): Promise<void> {
  await db
    .update(orderDeed)
    .set({
      state,
      steps: sql`${orderDeed.steps} || ${JSON.stringify([step])}::jsonb`,
      ...(more.tries !== undefined && { tries: more.tries }),
      ...(more.anew && { requestKey: randomUUID() }),
    })
    .where(eq(orderDeed.id, id))
}

/** What orders have done to a resource, or tried, step by step, oldest first. */
export async function orderStepsOn(db: Pick<Db, 'select'>, resourceId: string): Promise<ActionStep[]> {
  const rows = await db.select({ steps: orderDeed.steps }).from(orderDeed).where(eq(orderDeed.resourceId, resourceId)).orderBy(orderDeed.id)
  return rows.flatMap(({ steps }) => steps)
}

/** The orders that are on and that an event starts. */
export const ordersOnEvents = (db: Pick<Db, 'select'>): Promise<StoredOrder[]> =>
  db
    .select()
    .from(standingOrder)
    .where(and(eq(standingOrder.isOn, true), sql`${standingOrder.definition} -> 'starts' ->> 'by' = 'event'`))

/** Takes on notices that are still to be written, in one step. @returns those that were taken on: others are written by somebody else. */
export async function claimNotices(db: Pick<Db, 'update'>, ids: readonly number[]): Promise<number[]> {
  const rows = await db
    .update(orderDeed)
    .set({ state: 'sent' })
    .where(and(inArray(orderDeed.id, [...ids]), inArray(orderDeed.state, ['approved', 'failed'])))
    .returning({ id: orderDeed.id })
  return rows.map(({ id }) => id)
}
