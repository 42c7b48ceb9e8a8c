import { and, eq, sql } from 'drizzle-orm'
import { isoInstant } from '../../core/time/instant'
import type { Db, Tx } from '../db/database'
import type { load, PutAway } from '../db/schema'
import { billingPeriod, dataRevision, periodHistory } from '../db/schema'
import { countFrom, type PeriodOf } from './period-history'
import type { Period } from './counting'

type History = typeof periodHistory.$inferSelect
type Stepping = { period: PeriodOf; history: History | undefined }
/** The billing periods of a load, and those of others that it was chosen instead of. */
export type Steps = { own: Stepping[]; others: Stepping[] }
/** What would count no longer, and what would count again, by a step back or forth from a state. */
export type Undoing = { seen: number; goes: PeriodOf[]; comes: (PeriodOf & { loadId: number })[] }

/**
 * The billing periods that taking a load back, or forth again, would change; null when it cannot be: not all of them are as the load, or
 * its undoing, has left them. Periods of other sources that have delivered since are left as they are.
 */
export async function stepsOf(db: Pick<Db, 'select'>, row: typeof load.$inferSelect): Promise<Steps | null> {
  const isBack = row.state === 'loaded'
  const starts = [...new Set(row.periods.map(({ billingPeriodStart }) => isoInstant(billingPeriodStart)))]
  const stepping = async (source: string, start: string) => {
    const [counting] = await db
      .select()
      .from(billingPeriod)
      .where(and(eq(billingPeriod.source, source), eq(billingPeriod.start, start)))
    const [history] = await db
      .select()
      .from(periodHistory)
      .where(and(eq(periodHistory.source, source), eq(periodHistory.start, start)))
    return { now: counting?.loadId ?? null, history }
  }
  const own: Stepping[] = []
  for (const start of starts) {
    const { now, history } = await stepping(row.source, start)
    if (isBack ? now !== row.id : history?.newer.at(-1) !== row.id) return null
    own.push({ period: { source: row.source, start: isoInstant(start), end: isoInstant(history!.end) }, history })
  }
  const others: Stepping[] = []
  for (const { source, start, end, loadId } of row.putAway) {
    const { now, history } = await stepping(source, start)
    if (isBack ? now === null && history?.older.at(-1) === loadId : now === loadId && history?.newer.at(-1) === null)
      others.push({ period: { source, start: isoInstant(start), end: isoInstant(end) }, history })
  }
  return own.length || others.length ? { own, others } : null
}

/** Makes billing periods count no longer. @returns what they were. */
export async function putPeriodsAway(tx: Tx, periods: readonly Period[], revision: number): Promise<PutAway[]> {
  const away: PutAway[] = []
  for (const { source, start } of periods) {
    const [old] = await tx
      .select()
      .from(billingPeriod)
      .where(and(eq(billingPeriod.source, source), eq(billingPeriod.start, start)))
    if (!old) continue
    away.push({ source, start: old.start, end: old.end, loadId: old.loadId })
    await countFrom(tx, { source, start: old.start, end: old.end }, null, revision)
  }
  return away
}

/** Counts the state up. Whoever does so is alone with it until the transaction ends. */
export async function nextRevision(tx: Tx): Promise<number> {
  const [data] = await tx
    .insert(dataRevision)
    .values({ id: 1, revision: 1 })
    .onConflictDoUpdate({ target: dataRevision.id, set: { revision: sql`${dataRevision.revision} + 1` } })
    .returning()
  return data!.revision
}

/** Tells every process on the database, once the transaction is kept, that other charges count. */
export const tellRevision = (tx: Tx, revision: number) => tx.execute(sql`select pg_notify('rain_barrel_charges', ${String(revision)})`)
