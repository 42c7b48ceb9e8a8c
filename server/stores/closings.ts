import { desc, eq, sql } from 'drizzle-orm'
import { closingBarrier } from '../../core/allocation/closing/closing-order'
import type { ClosedState } from '../../shared/contracts/allocation'
import { alone } from '../db/alone'
import type { Db, Tx } from '../db/database'
import { allocationVersion, closedMonth, closedMonthLoad, dataRevision, type ClosedTree } from '../db/schema'
import { conflict } from '../problems/problem'
import { named, nameOf } from './names'

/** A closed month with all that is kept of it; `who` is a name. */
export type ClosedMonth = typeof closedMonth.$inferSelect
/** What is kept of a month when it is closed. */
export type Closing = Omit<ClosedMonth, 'settledVersion' | 'closedAt'> & {
  loads: readonly { source: string; start: string; loadId: number }[]
}

const { month, measure, version, settledVersion, purpose, closedAt, who } = closedMonth
const state = { month, measure, version, settledVersion, purpose, who: nameOf(who), closedAt }

/** The months that are closed, the newest first. */
export const listClosed = (db: Pick<Db, 'select'>): Promise<ClosedState[]> => db.select(state).from(closedMonth).orderBy(desc(month))

/** A closed month; null where it is open. */
export async function findClosed(db: Pick<Db, 'select'>, of: string): Promise<ClosedMonth | null> {
  const [row] = await db.select(named(closedMonth)).from(closedMonth).where(eq(month, of))
  return row ?? null
}

/** What is told of a closed month. */
export const closedState = ({ month, measure, version, settledVersion, purpose, who, closedAt }: ClosedMonth): ClosedState => ({
  ...{ month, measure, version, settledVersion, purpose, who, closedAt },
})

/** What tells whether a closed month would come out otherwise now, and what it has carried of others; not what was settled of it. */
export type ClosedBriefly = Pick<ClosedMonth, 'month' | 'version' | 'settledVersion' | 'beside'> & {
  carried: Pick<ClosedTree, 'tree' | 'adjustments'>[]
}

/** All closed months in brief, the oldest first. */
export const closedBriefly = (db: Pick<Db, 'select'>): Promise<ClosedBriefly[]> =>
  db
    .select({
      ...{ month, version, settledVersion, beside: closedMonth.beside },
      carried: sql<
        ClosedBriefly['carried']
      >`(select coalesce(jsonb_agg(jsonb_build_object('tree', t -> 'tree', 'adjustments', t -> 'adjustments')), '[]'::jsonb)
        from jsonb_array_elements(${closedMonth.trees}) as t)`,
    })
    .from(closedMonth)
    .orderBy(month)

/** The loads that each closed month refers to. */
export const loadsOfClosed = (db: Pick<Db, 'select'>) => db.select().from(closedMonthLoad)

/**
 * Closes a month with what was settled of it.
 * @param seen the state of the charges that was settled.
 * @param today the day in UTC.
 * @throws Problem where charges, rules or closed months have changed since it was settled.
 */
export async function closeMonth(db: Db, { loads, ...closing }: Closing, seen: number, today: string): Promise<ClosedState> {
  return alone(db, 'organisation', async tx => {
    const barrier = closingBarrier(
      closing.month,
      (await listClosed(tx)).map(one => one.month),
      today,
    )
    if (barrier) throw conflict(`${closing.month} cannot be closed`, `It stays open: ${barrier}.`)
    const [newest] = await tx.select({ version: sql<number>`max(${allocationVersion.version})` }).from(allocationVersion)
    if (newest?.version !== closing.version) throw lookAgain('The rules have')
    // whoever makes other charges count waits here until the month is closed
    const [counting] = await tx.select().from(dataRevision).where(eq(dataRevision.id, 1)).for('update')
    if ((counting?.revision ?? 0) !== seen) throw lookAgain('The charges have')
    await tx.insert(closedMonth).values({ ...closing, settledVersion: closing.version })
    if (loads.length)
      await tx.insert(closedMonthLoad).values(loads.map(({ source, start, loadId }) => ({ month: closing.month, source, start, loadId })))
    const [kept] = await tx.select(state).from(closedMonth).where(eq(month, closing.month))
    return kept!
  })
}

/** Something is another than it was when a month was looked at. */
export const lookAgain = (what: string) =>
  conflict('The month is another by now', `${what} changed since it was looked at. Nothing was closed: look at it again, then close it.`)

/** Lets the rules of a version hold for all closed months: what changes of them is adjusted. */
export const settleClosedBy = (tx: Tx, newest: number) => tx.update(closedMonth).set({ settledVersion: newest })
