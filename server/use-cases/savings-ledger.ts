import { Decimal, decimalText } from '../../core/money/decimal'
import { differencesOf } from '../../core/opportunity/explained'
import { hoursAwake } from '../../core/opportunity/measured/quiet-hours'
import type { Newcomer } from '../../core/opportunity/made-again'
import { isCommitted, promisedSince } from '../../core/opportunity/realised'
import { addDays, daysBetween, type Day } from '../../core/time/day'
import type { LedgerLine } from '../../shared/contracts/savings'
import type { ChargesSeen } from '../charges/charges-seen'
import type { CubeFacts } from '../charges/cube/cube-facts'
import { reportedTo } from '../charges/delivered-days'
import { listUndone } from '../stores/undone'
import { DAYS_BEFORE, realisedOf, type Done, type RealisedBetween } from './deed-charges'
import { newInPlace } from './made-again'
import { ALWAYS } from './resource-facts'
import { snapshotsKept, type KeptSnapshot } from './snapshots-kept'
import { ownersOf, type FoundSaving, type SavingsWork } from './savings-found'

const DECIMALS = 10
const text = (amount: Decimal) => decimalText(amount.round(DECIMALS))

/** When something was done, by whom and what was promised for it; null where it is not done. */
function deedOf({ state, action, decision, body }: FoundSaving): Done | null {
  if (state !== 'done' && state !== 'measured') return null
  if (action?.state === 'done') {
    const doneAt = instantOf(action.doneAt!)
    const { approvedBy: by, promisedMonthly, currency } = action
    return { doneAt, until: null, by, promisedMonthly, currency, body }
  }
  if (decision?.state !== 'done') return null
  const { monthlySaving: promisedMonthly, currency } = decision.body
  return { doneAt: `${decision.doneOn!}T00:00:00Z`, until: null, by: decision.who, promisedMonthly, currency, body: decision.body }
}

const instantOf = (at: string) => (at.includes('T') ? at : `${at.replace(' ', 'T').slice(0, 19)}Z`)

/** All that was done of what whoever asks may see: what still is, and what was undone. */
export async function allDone({ database, seen, asker }: SavingsWork, found: readonly FoundSaving[]): Promise<Done[]> {
  const undone = await listUndone(database.db)
  const theirs = asker.bound
    ? await ownersOf(
        seen,
        undone.map(({ body }) => body),
      )
    : null
  return [
    ...found.flatMap(one => deedOf(one) ?? []),
    ...undone
      .filter(({ body }) => !theirs || theirs.get(body.id))
      .map(({ body, doneAt, undoneAt, approvedBy: by, promisedMonthly, currency }) => ({
        ...{ doneAt: instantOf(doneAt), until: instantOf(undoneAt), by, promisedMonthly, currency, body },
      })),
  ]
}

/** Promised beside seen, of everything that is done, from the charges that are loaded. */
export async function savingsLedger(work: SavingsWork, found: readonly FoundSaving[]): Promise<LedgerLine[]> {
  const done = await allDone(work, found)
  const realised = realisedOf(work.seen, done)
  const { result: facts } = await work.seen.ask('facts', undefined)
  const [again, kept] = await Promise.all([newInPlace(work.seen, done), snapshotsKept(work.seen, done, facts)])
  const lines = await Promise.all(
    done.map(deed =>
      ledgerLine(work, deed, realised, facts, {
        again: deed.until ? [] : (again.get(deed.body.id) ?? []),
        snapshots: deed.until ? [] : (kept.get(deed.body.resourceId) ?? []),
      }),
    ),
  )
  return lines.sort((a, b) => (a.doneAt < b.doneAt ? 1 : a.doneAt > b.doneAt ? -1 : a.id < b.id ? -1 : 1))
}

/** The last day on which the bill shows a resource, or its source that it is gone; null where nothing was charged. */
export const billReaches = (charges: ChargesSeen, id: string, facts: Pick<CubeFacts, 'sources'>): Promise<Day | null> =>
  reportedTo(charges, { ...ALWAYS, keep: { ResourceId: [id] } }, facts)

async function ledgerLine(
  { seen: charges, people }: SavingsWork,
  deed: Done,
  realisedBetween: RealisedBetween,
  facts: CubeFacts,
  beside: { again: readonly Newcomer[]; snapshots: readonly KeptSnapshot[] },
): Promise<LedgerLine> {
  const { body, doneAt, until, currency } = deed
  const promisedMonthly = new Decimal(deed.promisedMonthly)
  const line = {
    // what was undone may be done anew, on a line of its own
    ...{
      id: until ? `${body.id} ${doneAt}` : body.id,
      resourceName: body.resourceName,
      doneAt,
      undoneAt: until,
      opportunity: body.id,
      detector: body.detector,
      approvedBy: people.nameOf(deed.by),
      currency,
    },
    snapshots: beside.snapshots.map(({ amount, ...one }) => ({ ...one, amount: text(amount) })),
    again: beside.again.map(({ resourceId, name, subAccount, since, amount }) => ({
      resourceId,
      name,
      subAccount,
      since,
      amount: text(amount),
    })),
    // what was undone promises nothing from then on
    promisedMonthly: until ? '0' : decimalText(promisedMonthly),
  }
  const notSeen = {
    seenTo: null,
    promised: null,
    seen: null,
    seenBilled: null,
    daysBefore: DAYS_BEFORE,
    daysSince: 0,
    unusedCommitments: [],
    workings: null,
    differences: [],
  }
  const day = doneAt.slice(0, 10)
  const billed = await billReaches(charges, body.resourceId, facts)
  // the day on which it was undone is not a day of it any more
  const last = billed && until && until.slice(0, 10) <= billed ? addDays(until.slice(0, 10), -1) : billed
  // undone on the same day, there is nothing of it to see
  if (until?.startsWith(day)) return { ...line, ...notSeen, promised: '0', seen: '0', seenBilled: '0' }
  if (!last || last < day) return { ...line, ...notSeen }
  const end = addDays(last, 1)
  const daysSince = daysBetween(day, end)
  const hourOfDeed = Number(doneAt.slice(11, 13))
  const promised = promisedSince(promisedMonthly, daysSince * 24 - hourOfDeed)
  const realised = await realisedBetween(deed, day, end)
  const { result: meanings } = await charges.ask(
    'meanings',
    (realised?.lines ?? []).map(({ sku }) => sku),
  )
  const asleep = body.instruction?.deed === 'schedule' ? body.instruction.asleep : null
  const hours = { ...{ all: daysSince * 24, before: hourOfDeed }, awake: asleep && hoursAwake(asleep, day, hourOfDeed, end) }
  return {
    ...line,
    ...{ seenTo: last, daysBefore: DAYS_BEFORE, daysSince },
    promised: text(promised),
    seen: realised && text(realised.effective),
    seenBilled: realised && text(realised.billed),
    differences: realised
      ? differencesOf(realised, { effects: body.effects, hours }, promised).map(({ kind, amount }) => ({ kind, amount: text(amount) }))
      : [],
    unusedCommitments: (realised?.unused ?? []).map(({ commitment, amount }) => ({ commitment, amount: text(amount) })),
    workings: (realised?.lines ?? []).map(({ sku, unit, category, how, ...amounts }) => ({
      ...{ sku, unit, how, isCommitted: isCommitted({ category }), words: Object.hasOwn(meanings, sku) ? meanings[sku]!.words : sku },
      ...{ unitsBefore: text(amounts.unitsBefore), costBefore: text(amounts.costBefore), unitsElse: text(amounts.unitsElse) },
      ...{ counterfactual: text(amounts.counterfactual), actual: text(amounts.actual) },
    })),
  }
}
