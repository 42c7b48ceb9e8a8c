import { firstOpenMonth } from '../../core/allocation/closing/closing-order'
import type { AllocationPlan } from '../../core/allocation/plan'
import type { AllocationQuestion, MovedCharges, PlanPreview, SettledBeside, Settlement } from '../../shared/contracts/allocation'
import type { RatesAsked } from '../charges/cube/cube-slices'
import type { JsonBytes } from '../json-bytes'
import { wholeCompany } from '../problems/problem'
import { findClosed, listClosed, type ClosedMonth } from '../stores/closings'
import { adjustmentsArriving, basisFor, keptMonth, planFor } from './closed-months'
import { settleMonth } from './settle-month'
import type { Work } from './work'

/** A settled month with the plan that it was settled by; what was kept of a closed one as it is, else as it was written. */
export type SettledMonth = { plan: AllocationPlan; reply: Settlement | JsonBytes<Settlement> }

/** A billing month put on cost centres: as it was closed, or by the plan that holds for it. */
export async function settledMonth(work: Work, question: AllocationQuestion): Promise<SettledMonth> {
  const { month, measure, uplifts } = question
  const tree = question.tree ?? null
  const { db } = work.database
  if (work.asker.bound && tree !== null) throw wholeCompany('Further trees of cost centres.')
  const closed = await findClosed(db, month)
  const kept = question.as !== 'today' && closed?.measure === measure && closed.trees.find(one => one.tree === tree)
  if (closed && kept) return keptMonth(work, closed, kept)
  const { plan, version } = await planFor(db, closed, tree)
  const asked = { month, measure, tree, rates: ratesOf(closed), uplifts }
  return { plan, reply: await settleMonth(work.seen, plan, asked, await besideMonth(work, month, tree, version)) }
}

/**
 * What a month would look like under a plan or with lookups that are not saved; without a plan, under the one that holds for it.
 * @param unwanted ends it when whoever asked has left, or asked anew.
 */
export async function previewedMonth(
  work: Work,
  { plan, lookups, measures, month, measure, uplifts, ...asked }: PlanPreview,
  unwanted: AbortSignal,
): Promise<JsonBytes<Settlement>> {
  const tree = asked.tree ?? null
  const { db } = work.database
  const closed = await findClosed(db, month)
  const beside = await besideMonth(work, month, tree, 0)
  const question = { month, measure, tree, rates: ratesOf(closed), lookups, measures, uplifts }
  return settleMonth(work.seen, plan ?? (await planFor(db, closed, tree)).plan, question, beside, unwanted)
}

/** The charges of a month that a plan, or lookups, not saved put elsewhere than the plan that holds for it does. */
export async function movedInMonth(
  work: Work,
  { plan, lookups, month, measure, ...asked }: Omit<PlanPreview, 'measures' | 'uplifts'>,
  unwanted: AbortSignal,
): Promise<JsonBytes<MovedCharges>> {
  const { db } = work.database
  const tree = asked.tree ?? null
  const { plan: now } = await planFor(db, await findClosed(db, month), tree)
  return work.seen.inSlices('moved', { month, measure, tree, lookups, now, plan: plan ?? now }, unwanted)
}

/** The rates that a month was closed with; null where it is open. */
const ratesOf = (closed: ClosedMonth | null): RatesAsked => closed && { reportCurrency: closed.reportCurrency, rates: closed.rates }

/** What stands beside a month that is settled now: what arrives in it of months that are closed. */
async function besideMonth(work: Work, month: string, tree: string | null, version: number): Promise<SettledBeside> {
  const basis = await basisFor(work)
  const first = firstOpenMonth((await listClosed(work.database.db)).map(one => one.month))
  return { version, basis, closed: null, adjustments: first === month ? await adjustmentsArriving(work, tree) : [] }
}
