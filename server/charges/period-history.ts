import { and, eq, sql } from 'drizzle-orm'
import type { Tx } from '../db/database'
import { billingPeriod, chargeSegment, periodHistory } from '../db/schema'

/** A source's billing period. */
export type PeriodOf = { source: string; start: string; end: string }
type Step = number | null

/** So many loads of a billing period can be stepped back to. */
const MOST_STEPS = 3

/** The billing period of a source among those that count, or among the histories. */
const same = (table: typeof billingPeriod | typeof periodHistory, { source, start }: Pick<PeriodOf, 'source' | 'start'>) =>
  and(eq(table.source, source), eq(table.start, start))

type State = { now: Step; older: Step[]; newer: Step[] }

async function stateOf(tx: Tx, period: PeriodOf): Promise<State> {
  const [counting] = await tx.select().from(billingPeriod).where(same(billingPeriod, period))
  const [history] = await tx.select().from(periodHistory).where(same(periodHistory, period))
  return { now: counting?.loadId ?? null, older: history?.older ?? [], newer: history?.newer ?? [] }
}

async function keepState(tx: Tx, { source, start, end }: PeriodOf, { now, older, newer }: State, revision: number): Promise<void> {
  const history = { older, newer }
  await tx
    .insert(periodHistory)
    .values({ source, start, end, ...history })
    .onConflictDoUpdate({ target: [periodHistory.source, periodHistory.start], set: { end, ...history } })
  if (now === null) {
    await tx.delete(billingPeriod).where(same(billingPeriod, { source, start }))
    return
  }
  const values = { loadId: now, previousLoadId: older.at(-1) ?? null, end, revision }
  await tx
    .insert(billingPeriod)
    .values({ source, start, ...values })
    .onConflictDoUpdate({ target: [billingPeriod.source, billingPeriod.start], set: values })
}

/** With what counts now among the older ones: the oldest go where there are too many. */
function pastOf({ now, older }: State): Step[] {
  const past = now === null && !older.length ? [] : [...older, now]
  while (past.filter(step => step !== null).length > MOST_STEPS) past.shift()
  return past
}

/** Makes a load count for a period, or nothing; what was taken back before can no longer come forth. */
export async function countFrom(tx: Tx, period: PeriodOf, now: Step, revision: number): Promise<void> {
  await keepState(tx, period, { now, older: pastOf(await stateOf(tx, period)), newer: [] }, revision)
}

/** What counted before counts again. @returns the load that does; null when nothing does. */
export async function stepBack(tx: Tx, period: PeriodOf, revision: number): Promise<Step> {
  const state = await stateOf(tx, period)
  const now = state.older.at(-1) ?? null
  await keepState(tx, period, { now, older: state.older.slice(0, -1), newer: [...state.newer, state.now] }, revision)
  return now
}

/** What was taken back last comes forth. */
export async function stepForth(tx: Tx, period: PeriodOf, revision: number): Promise<void> {
  const state = await stateOf(tx, period)
  const [now] = state.newer.slice(-1)
  if (now === undefined) return
  await keepState(tx, period, { now, older: pastOf(state), newer: state.newer.slice(0, -1) }, revision)
}

/**
 * Takes away for good the charges of loads that neither count nor can be stepped to. What is being read or waits for a choice stays, and
 * what a closed month refers to.
 */
export async function forgetUnreachable(tx: Tx): Promise<void> {
  await tx.execute(sql`
    delete from ${chargeSegment} where (load_id, billing_period_start) in (
      select distinct s.load_id, s.billing_period_start from ${chargeSegment} s
        join load l on l.id = s.load_id and l.state not in ('checking', 'loading', 'choosing')
        where not exists (select 1 from billing_period p where p.load_id = s.load_id and p.start = s.billing_period_start)
          and not exists (select 1 from closed_month_load c where c.load_id = s.load_id and c.start = s.billing_period_start)
          and not exists (select 1 from period_history h where h.start = s.billing_period_start
            and (h.older @> to_jsonb(s.load_id) or h.newer @> to_jsonb(s.load_id))))`)
}
