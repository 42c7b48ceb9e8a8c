import { randomUUID } from 'node:crypto'
import { and, eq, inArray, not, notInArray, sql } from 'drizzle-orm'
import { actingOn } from '../../core/opportunity/acting'
import { connectionDetectors } from '../../core/opportunity/detectors'
import type { Opportunity } from '../../core/opportunity/opportunity'
import { ANY } from '../../core/opportunity/realised'
import type { ActionState, ActionStep, FoundState } from '../../shared/contracts/savings'
import type { Db } from '../db/database'
import { action, opportunity } from '../db/schema'

export type StoredOpportunity = typeof opportunity.$inferSelect
export type StoredAction = typeof action.$inferSelect

/** Who finds: a detector, through a connection. */
export type Finder = { detector: string; connection: string }

/**
 * Keeps what a detector found now through a connection. What it has spotted there and finds no longer goes away, but for what was acted on
 * in vain; what is under way or done stays, and so does what others have found.
 */
export async function keepFound(db: Db, found: readonly Opportunity[], { detector, connection }: Finder): Promise<void> {
  await db.transaction(async tx => {
    for (const body of found) {
      await tx
        .insert(opportunity)
        .values({ id: body.id, state: 'spotted', detector, connection, body })
        .onConflictDoUpdate({
          target: opportunity.id,
          set: { body, connection, state: 'spotted' },
          setWhere: inArray(opportunity.state, ['spotted', 'gone']),
        })
    }
    const gone = found.length
      ? notInArray(
          opportunity.id,
          found.map(f => f.id),
        )
      : sql`true`
    const own = and(eq(opportunity.detector, detector), eq(opportunity.connection, connection))
    const lost = and(gone, eq(opportunity.state, 'spotted'), own)
    const acted = sql`exists (select 1 from ${action} where ${action.opportunityId} = ${opportunity.id})`
    await tx.update(opportunity).set({ state: 'gone' }).where(and(lost, acted))
    await tx.delete(opportunity).where(and(lost, not(acted)))
  })
}

/** What was found, with what was done about it; evidence of an earlier form is read as the present one. */
export async function listOpportunities(db: Db): Promise<{ opportunity: StoredOpportunity; action: StoredAction | null }[]> {
  const rows = await db.select().from(opportunity).leftJoin(action, eq(action.opportunityId, opportunity.id)).orderBy(opportunity.id)
  return rows.map(({ opportunity, action }) => ({ opportunity: asKept(opportunity), action }))
}

function asKept(row: StoredOpportunity): StoredOpportunity {
  const { body } = row
  const evidence = connectionDetectors.find(({ detector }) => detector === row.detector)?.earlierEvidence?.(body.evidence)
  return { ...row, body: { ...earlierFacts(body), ...body, ...(evidence && { evidence }) } }
}

/** What was not said of an opportunity before: everything of its resource was to go, as it was measured. */
const earlierFacts = ({ resourceId, monthlySaving }: Opportunity): Partial<Opportunity> => ({
  ...{ service: '', oneOff: null, confidence: 'measured', risk: 'little' },
  effects: [{ resourceId, sku: ANY, how: 'gone', now: monthlySaving, then: '0' }],
})

export async function findOpportunity(db: Db, id: string) {
  return (await listOpportunities(db)).find(row => row.opportunity.id === id) ?? null
}

/** Actions of which it is not known whether they were done. */
export async function openActions(db: Db): Promise<{ opportunity: StoredOpportunity; action: StoredAction }[]> {
  return db
    .select({ opportunity, action })
    .from(action)
    .innerJoin(opportunity, eq(action.opportunityId, opportunity.id))
    .where(inArray(action.state, ['sent', 'not known']))
}

/** What can be approved: as it was found, by which detector and through which connection it is acted on; whether by two people. */
export type ToApprove = Pick<StoredOpportunity, 'id' | 'body' | 'detector' | 'connection'> & { needsSecond: boolean }

/**
 * Records the approval, once: a second one gets the first, unless that has lapsed or failed. The key made here goes with every try, until a
 * try is known to have been refused.
 * @param needsSecond whether it waits for another person than the first.
 */
async function approve(
  db: Pick<Db, 'insert' | 'select' | 'update'>,
  { id, body, detector, connection, needsSecond }: ToApprove,
  who: string,
): Promise<StoredAction> {
  const state = needsSecond ? ('waiting' as const) : ('approved' as const)
  // what the bill shows is kept from here on, as it was approved
  await db
    .insert(opportunity)
    .values({ id, state: 'spotted', detector, connection, body })
    .onConflictDoUpdate({ target: opportunity.id, set: { body }, setWhere: inArray(opportunity.state, ['spotted', 'gone']) })
  const at = new Date().toISOString()
  const step: ActionStep = { at, who, what: `approved: ${actingOn(body)!.instruction.deed} ${body.resourceName}`, outcome: 'recorded' }
  const promised = { promisedMonthly: body.monthlySaving, currency: body.currency }
  await db
    .insert(action)
    .values({ opportunityId: id, requestKey: randomUUID(), state, approvedBy: who, ...promised, steps: [step] })
    .onConflictDoNothing()
  const [known] = await db.select().from(action).where(eq(action.opportunityId, id)).for('update')
  const change = (set: Partial<typeof action.$inferInsert>) =>
    db
      .update(action)
      .set({ ...set, steps: [...known!.steps, step] })
      .where(eq(action.id, known!.id))
  if (known!.state === 'lapsed') await change({ ...promised, requestKey: randomUUID(), state, approvedBy: who, approvedAt: at, tries: 0 })
  // it goes by its key, which is another where it was refused
  if (known!.state === 'failed') await change({ state, approvedBy: who, approvedAt: at })
  if (known!.state === 'waiting' && (!needsSecond || known!.approvedBy !== who)) await change({ state: 'approved' })
  await db
    .update(opportunity)
    .set({ state: 'under way' })
    .where(and(eq(opportunity.id, id), inArray(opportunity.state, ['spotted', 'gone'])))
  const [row] = await db.select().from(action).where(eq(action.opportunityId, id))
  return row!
}

/** Records approvals, all or none. @returns the actions, in their order. */
export const approveAll = (db: Db, list: readonly ToApprove[], who: string): Promise<StoredAction[]> =>
  db.transaction(async tx => {
    const actions: StoredAction[] = []
    for (const one of list) actions.push(await approve(tx, one, who))
    return actions
  })

/** Where an action leaves its opportunity. One whose approval has lapsed is none, until a look finds it again. */
const opportunityAfter: Record<ActionState, FoundState> = {
  waiting: 'under way',
  approved: 'under way',
  sent: 'under way',
  'not known': 'under way',
  done: 'done',
  failed: 'spotted',
  lapsed: 'gone',
}

/**
 * Notes a step of an action and where that leaves it and its opportunity, in one transaction. @param more.anew whether the next try goes
 * under another key.
 */
export async function noteStep(
  db: Db,
  { id, opportunityId }: StoredAction,
  state: ActionState,
  step: ActionStep,
  more: { doneAt?: string; tries?: number; anew?: boolean } = {},
): Promise<void> {
  await db.transaction(async tx => {
    const [row] = await tx.select().from(action).where(eq(action.id, id)).for('update')
    await tx
      .update(action)
      .set({
        state,
        steps: [...row!.steps, step],
        ...(more.doneAt && { doneAt: more.doneAt }),
        ...(more.tries !== undefined && { tries: more.tries }),
        ...(more.anew && { requestKey: randomUUID() }),
      })
      .where(eq(action.id, id))
    await tx.update(opportunity).set({ state: opportunityAfter[state] }).where(eq(opportunity.id, opportunityId))
  })
}

/** Takes back approvals of what nothing was begun of. @returns of how many. */
export async function takeBack(db: Db, ids: readonly string[], who: string): Promise<number> {
  const begun = await db
    .select()
    .from(action)
    .where(and(inArray(action.opportunityId, [...ids]), inArray(action.state, ['waiting', 'approved'])))
  for (const one of begun)
    await noteStep(db, one, 'lapsed', { at: new Date().toISOString(), who, what: 'stop', outcome: 'not begun, and not to be' })
  return begun.length
}
