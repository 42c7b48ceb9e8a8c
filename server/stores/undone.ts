import { randomUUID } from 'node:crypto'
import { asc, eq, sql } from 'drizzle-orm'
import type { ActionState, ActionStep } from '../../shared/contracts/savings'
import type { Db } from '../db/database'
import { action, opportunity, undoneAction, type Undoing } from '../db/schema'
import type { StoredAction } from './savings'

export type StoredUndone = typeof undoneAction.$inferSelect

/** What was undone, the oldest first. */
export const listUndone = (db: Pick<Db, 'select'>): Promise<StoredUndone[]> => db.select().from(undoneAction).orderBy(asc(undoneAction.id))

/** The steps of what was done to a resource and undone. */
export async function undoneStepsOn(db: Pick<Db, 'select'>, resourceId: string): Promise<ActionStep[]> {
  const rows = await db
    .select({ steps: undoneAction.steps })
    .from(undoneAction)
    .where(sql`${undoneAction.body} ->> 'resourceId' = ${resourceId}`)
    .orderBy(undoneAction.id)
  return rows.flatMap(({ steps }) => steps)
}

/** Begins to undo an action, once: whoever asks again goes on with what was begun. */
export async function beginUndoing(db: Db, { id }: StoredAction, who: string): Promise<Undoing> {
  return db.transaction(async tx => {
    const [row] = await tx.select({ undoing: action.undoing }).from(action).where(eq(action.id, id)).for('update')
    if (row!.undoing) return row!.undoing
    const undoing: Undoing = { requestKey: randomUUID(), state: 'approved', tries: 0, who }
    await tx.update(action).set({ undoing }).where(eq(action.id, id))
    return undoing
  })
}

export async function findUndoing(db: Pick<Db, 'select'>, id: number): Promise<Undoing | null> {
  return (await db.select({ undoing: action.undoing }).from(action).where(eq(action.id, id)))[0]?.undoing ?? null
}

/**
 * Notes a step of undoing. Once it is done, the action is one that was undone, and the opportunity may be found and acted on anew, in one
 * transaction.
 */
export async function noteUndoing(
  db: Db,
  { id, opportunityId }: StoredAction,
  state: ActionState,
  step: ActionStep,
  more: { doneAt?: string; tries?: number; anew?: boolean } = {},
): Promise<void> {
  await db.transaction(async tx => {
    const [row] = await tx.select().from(action).where(eq(action.id, id)).for('update')
    const steps = [...row!.steps, step]
    const undoing: Undoing = {
      ...row!.undoing!,
      state,
      ...(more.tries !== undefined && { tries: more.tries }),
      ...(more.anew && { requestKey: randomUUID() }),
    }
    if (state !== 'done') {
      await tx.update(action).set({ steps, undoing }).where(eq(action.id, id))
      return
    }
    const [kept] = await tx.select().from(opportunity).where(eq(opportunity.id, opportunityId))
    const { approvedBy, doneAt, promisedMonthly, currency } = row!
    await tx
      .insert(undoneAction)
      .values({
        ...{ opportunityId, body: kept!.body, approvedBy, doneAt: doneAt!, promisedMonthly, currency, steps },
        ...{ undoneAt: more.doneAt ?? sql`now()`, undoneBy: undoing.who },
      })
    await tx.delete(action).where(eq(action.id, id))
    await tx.delete(opportunity).where(eq(opportunity.id, opportunityId))
  })
}
