import { dayText, monthText } from '../../shared/words/days'
import { settlementWithin } from '../../core/allocation/bound'
import { centresWithin } from '../../core/allocation/tree'
import { adjustmentsLeft, type Adjustment } from '../../core/allocation/closing/adjustments'
import { closingBarrier, firstOpenMonth } from '../../core/allocation/closing/closing-order'
import { keptSettlement } from '../../core/allocation/closing/kept-settlement'
import { treeOf, type AllocationPlan } from '../../core/allocation/plan'
import { addDays, monthEnd } from '../../core/time/day'
import { isoInstant } from '../../core/time/instant'
import { today } from '../../shared/today'
import type { ClosedState, CloseMonth, ClosingOutlook, Settlement } from '../../shared/contracts/allocation'
import type { MovedLines } from '../../shared/contracts/imports'
import type { Db } from '../db/database'
import type { ClosedTree } from '../db/schema'
import { movedBetween, type Restated } from '../imports/moved'
import { conflict, notFound } from '../problems/problem'
import { besideHashes, ratesText } from '../stores/beside'
import {
  closedBriefly,
  closedState,
  closeMonth,
  findClosed,
  listClosed,
  loadsOfClosed,
  lookAgain,
  type ClosedMonth,
} from '../stores/closings'
import { currentPlan, planOfVersion, type SavedPlan } from '../stores/organisation'
import { settleMonth } from './settle-month'
import type { Work } from './work'

/** A version of the plan that a closed month refers to. */
async function planOf(db: Db, version: number): Promise<SavedPlan> {
  const saved = await planOfVersion(db, version)
  if (!saved) throw new Error(`version ${version} of the plan is not there`)
  return saved
}

/**
 * The plan that a month is settled by: the one that holds for it where it is closed, else the newest. A tree that is younger than the
 * closing has nothing that was closed: it goes by the newest.
 * @throws Problem before there is one.
 */
export async function planFor(db: Db, closed: Pick<ClosedState, 'settledVersion'> | null, tree: string | null = null): Promise<SavedPlan> {
  const kept = closed && (await planOf(db, closed.settledVersion))
  const saved = kept && treeOf(kept.plan, tree) ? kept : await currentPlan(db)
  if (!saved) throw notFound('plan', 'No cost centres are loaded yet. Drop a file with cost centres under Sources.')
  return saved
}

/** What stands for all that is known beside the charges; for whoever sees a part of the company it stands for nothing. */
export const basisFor = async ({ asker, database }: Work): Promise<string> => (asker.bound ? '' : (await besideHashes(database)).basis)

/** What was kept of a closed month, as far as whoever asks may see it. */
export async function keptMonth(work: Work, month: ClosedMonth, kept: ClosedTree): Promise<{ plan: AllocationPlan; reply: Settlement }> {
  const { bound } = work.asker
  const { plan } = await planOf(work.database.db, month.version)
  const { settlement } = kept
  // a month closed before uplifts were kept has none
  const whole = { ...settlement, uplifts: settlement.uplifts ?? [] }
  const seen = bound ? settlementWithin(whole, treeOf(plan, kept.tree)!, bound) : whole
  const adjustments = adjustmentsSeen(kept.adjustments, plan, bound)
  const basis = await basisFor(work)
  const revision = await work.charges.revision()
  return { plan, reply: { ...seen, adjustments, basis, revision, version: month.version, closed: closedState(month) } }
}

const adjustmentsSeen = (adjustments: Adjustment[], plan: AllocationPlan, bound: Work['asker']['bound']): Adjustment[] => {
  if (!bound) return adjustments
  const within = centresWithin(plan.centres, bound)
  return adjustments.filter(({ centre }) => centre !== null && within.has(centre))
}

/** What closed months come to otherwise now than they were closed with and adjusted by: it arrives in the first open month. */
export async function adjustmentsArriving(work: Work, tree: string | null): Promise<Adjustment[]> {
  const { database, asker } = work
  const months = await closedBriefly(database.db)
  if (!months.length) return []
  const counting = (await work.charges.counting()).periods
  const loads = await loadsOfClosed(database.db)
  const { beside } = await besideHashes(database)
  const carried = months.flatMap(month => month.carried.filter(one => one.tree === tree).flatMap(one => one.adjustments))
  const found: Adjustment[] = []
  for (const closed of months) {
    if (!closed.carried.some(one => one.tree === tree)) continue
    const posted = carried.filter(({ month }) => month === closed.month)
    const then = loads.filter(({ month }) => month === closed.month)
    const isSame = beside === closed.beside && closed.version === closed.settledVersion && areSame(then, periodsOf(closed.month, counting))
    if (!isSame) found.push(...(await adjustmentsNow(work, closed.month, tree, posted)))
    // as it was closed: what was carried of it is to be taken back
    else if (posted.length) found.push(...adjustmentsLeft({ month: closed.month, kept: nothing, charges: null, rules: null, posted }))
  }
  const newest = await currentPlan(database.db)
  return newest ? adjustmentsSeen(found, newest.plan, asker.bound) : []
}
const nothing = { statements: [], unallocated: [] }

type PeriodLoad = { source: string; start: string; loadId: number }
const periodsOf = <T extends PeriodLoad>(month: string, periods: readonly T[]): T[] =>
  periods.filter(({ start }) => start.startsWith(month))
const asText = (loads: readonly PeriodLoad[]) =>
  JSON.stringify(loads.map(({ source, start, loadId }) => [source, Date.parse(start), loadId] as const).sort(byText))
const byText = (a: unknown, b: unknown) => (JSON.stringify(a) < JSON.stringify(b) ? -1 : 1)
const areSame = (then: readonly PeriodLoad[], now: readonly PeriodLoad[]) => asText(then) === asText(now)

async function adjustmentsNow(
  { database, seen }: Work,
  month: string,
  tree: string | null,
  posted: readonly Adjustment[],
): Promise<Adjustment[]> {
  const closed = (await findClosed(database.db, month))!
  const { measure, version, settledVersion, reportCurrency, rates, trees } = closed
  const { statements, unallocated } = trees.find(one => one.tree === tree)!.settlement
  const { plan: keptPlan } = await planOf(database.db, version)
  const reply = await seen.inSlices('adjustments', {
    key: JSON.stringify(['adjustments', month, tree, settledVersion, posted.length]),
    ...{ month, measure, tree, rates: { reportCurrency, rates }, keptPlan, posted },
    kept: { statements, unallocated },
    plan: settledVersion === version ? null : (await planOf(database.db, settledVersion)).plan,
  })
  return reply.read().adjustments
}

/** The charge lines of a closed month that have changed since it was closed, whoever bears them. */
export async function changedSinceClosed(work: Work, month: string): Promise<MovedLines> {
  const { database, charges } = work
  if (!(await findClosed(database.db, month))) throw notFound('closed month', `${month} is open.`)
  const now = periodsOf(month, (await charges.counting()).periods)
  const then = (await loadsOfClosed(database.db)).filter(one => one.month === month)
  const found = new Map<string, Restated>()
  for (const [loads, which] of [
    [then, 'previousLoadId'],
    [now, 'loadId'],
  ] as const)
    for (const { source, start, loadId } of loads) {
      const key = JSON.stringify([source, Date.parse(start)])
      const restated = found.get(key) ?? { start: isoInstant(start), previousLoadId: null, loadId: null }
      found.set(key, { ...restated, [which]: loadId })
    }
  return movedBetween(
    work,
    [...found.values()].filter(({ previousLoadId, loadId }) => previousLoadId !== loadId),
  )
}

/** Whether a month can be closed, and what whoever closes it should know. */
export async function closingOutlook({ database, seen, charges }: Work, month: string): Promise<ClosingOutlook> {
  const closed = (await listClosed(database.db)).map(one => one.month)
  const held = periodsOf(month, (await charges.counting()).periods)
  if (!held.length) return { month, barrier: 'no charges of it are loaded', warnings: [] }
  const { result: facts } = await seen.ask('facts', undefined)
  const last = addDays(monthEnd(month), -1)
  const warnings = facts.sources
    .filter(({ source, lastDay }) => lastDay < last && held.some(period => period.source === source))
    .map(
      ({ source, lastDay }) =>
        `${source} has delivered until ${dayText(lastDay)}: what it still brings of ${monthText(month)} will be an adjustment`,
    )
  const damaged = facts.damaged.find(({ billingPeriodStart }) => billingPeriodStart.startsWith(month))
  const barrier = damaged ? `charges of ${damaged.source} are damaged and in no figure` : closingBarrier(month, closed, today())
  return { month, barrier, warnings }
}

/** Closes a month as it was looked at: its statements are kept with what they carry of months closed before. */
export async function closeAsLookedAt(work: Work, { month, measure, purpose, ...looked }: CloseMonth): Promise<ClosedState> {
  const { database, charges, asker } = work
  const { barrier } = await closingOutlook(work, month)
  if (barrier) throw conflict(`${month} cannot be closed`, `It stays open: ${barrier}.`)
  const [{ plan, version }, hashes, list, { result: facts }, closed] = await Promise.all([
    planFor(database.db, null),
    besideHashes(database),
    ratesText(database),
    work.seen.ask('facts', undefined),
    listClosed(database.db),
  ])
  if (hashes.basis !== looked.basis) throw lookAgain('Rates, lookups or what else is known beside the charges have')
  if (version !== looked.version) throw lookAgain('The rules have')
  const { reportCurrency } = facts
  const rates = ratesUntil(JSON.parse(list) as ClosedMonth['rates'], monthEnd(month))
  const isNext = firstOpenMonth(closed.map(one => one.month)) === month
  const trees: ClosedTree[] = []
  for (const tree of [null, ...(plan.trees ?? []).map(({ id }) => id)]) {
    const beside = { version, basis: hashes.basis, closed: null, adjustments: [] }
    const reply = await settleMonth(work.seen, plan, { month, measure, tree, rates: { reportCurrency, rates } }, beside)
    const { statements, catches, pools, unallocated, proof, flows, uplifts, revision } = reply.read()
    if (revision !== looked.revision) throw lookAgain('The charges have')
    const stuck = unallocated.find(({ pool }) => pool)?.pool
    if (stuck) throw conflict(`${month} cannot be closed`, `The pool «${stuck.name}» is not divided: ${stuck.why}.`)
    if (proof.some(({ equal }) => !equal)) throw new Error(`the settlement of ${month} does not add up`)
    const adjustments = isNext ? await adjustmentsArriving(work, tree) : []
    trees.push({ tree, settlement: keptSettlement({ statements, catches, pools, unallocated, proof, flows, uplifts }), adjustments })
  }
  const loads = periodsOf(month, (await charges.counting()).periods)
  const closing = { ...{ month, measure, version, trees, rates, reportCurrency, loads, purpose }, beside: hashes.beside, who: asker.id }
  return closeMonth(database.db, closing, looked.revision, today())
}

/** Rates that can be asked for in a month: those that begin later cannot. */
const ratesUntil = (rates: ClosedMonth['rates'], end: string) =>
  rates.filter(({ validFrom }) => validFrom < end).map(({ from, to, validFrom, rate }) => ({ from, to, validFrom, rate }))
