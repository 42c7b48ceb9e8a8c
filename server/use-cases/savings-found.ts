import type { Owner } from '../../core/allocation/whose'
import { addDays } from '../../core/time/day'
import { actingOn } from '../../core/opportunity/acting'
import { detectorOf } from '../../core/opportunity/detectors'
import type { LookedThrough } from '../../core/opportunity/bill/look-through-bill'
import type { Opportunity } from '../../core/opportunity/opportunity'
import type { SetThreshold } from '../../core/opportunity/thresholds'
import type { DecidedState, OpportunityState } from '../../shared/contracts/savings'
import type { ChargesSeen } from '../charges/charges-seen'
import type { Db } from '../db/database'
import { conflict, notFound } from '../problems/problem'
import { cardsUntilLater } from '../stores/rate-cards'
import { listDecisions, listThresholds, type StoredDecision } from '../stores/decisions'
import { ownAsked } from '../stores/own-finds'
import { listOpportunities, type StoredAction } from '../stores/savings'
import type { Work } from './work'

export type SavingsWork = Pick<Work, 'database' | 'seen' | 'people' | 'asker'>

/** An opportunity wherever it was found, with what was done and decided about it, and whose it is. */
export type FoundSaving = {
  body: Opportunity
  state: OpportunityState
  foundAt: string | null
  action: StoredAction | null
  decision: StoredDecision | null
  owner: Owner
  /** It was done, and is found on days since. */
  cameBack: boolean
}

/** So many days may pass after a deed before the bill that shows it has come. */
const LATE_DAYS = 7

/**
 * What is found on the bill, alone and with what is measured of it, of what whoever asks may see; the same until charges, cards or
 * thresholds change.
 */
export async function foundOnBill(
  { seen, database }: Pick<SavingsWork, 'seen' | 'database'>,
  thresholds: SetThreshold[],
): Promise<LookedThrough> {
  const [cards, own] = await Promise.all([presentCards(seen, database.db), ownAsked(database.db)])
  return (await seen.inSlices('savings', { thresholds, cards, own })).read()
}

/** What a provider has announced for later prices nothing that runs now. */
export async function presentCards(seen: ChargesSeen, db: Db) {
  const { result: facts } = await seen.ask('facts', undefined)
  return facts.lastDay === null ? [] : cardsUntilLater(db, facts.lastDay)
}

/** One of what is found on the bill, as it is found at this moment; null where it is not. */
export async function foundAgain(seen: ChargesSeen, db: Db, id: string): Promise<Opportunity | null> {
  const [thresholds, cards, own] = await Promise.all([listThresholds(db), presentCards(seen, db), ownAsked(db)])
  return (await seen.inSlices('saving', { id, thresholds, cards, own })).read().found
}

/** Everything that can be saved or was decided, of what is for whoever asks. */
export async function foundSavings(work: SavingsWork): Promise<FoundSaving[]> {
  const { database, seen, asker } = work
  const [stored, decisions, thresholds] = await Promise.all([
    listOpportunities(database.db),
    listDecisions(database.db),
    listThresholds(database.db),
  ])
  const { found: onBill } = await foundOnBill(work, thresholds)
  const rows = new Map(stored.map(row => [row.opportunity.id, row]))
  const present = new Map(onBill.map(body => [body.id, body]))
  const ids = new Set([...rows.keys(), ...present.keys()])
  const all: Omit<FoundSaving, 'owner'>[] = [...ids].map(id => {
    const [row, now] = [rows.get(id), present.get(id)]
    const kept = row?.opportunity
    const decision = decisions.get(id) ?? null
    // what is acted on, or was, stays what it was then
    const acted = kept?.state === 'under way' || kept?.state === 'done' ? kept.state : null
    const body = acted || !now ? kept!.body : now
    // an approval that lapsed says nothing of what the bill shows anew
    const isGone = !acted && !now && (kept!.state === 'gone' || detectorFor(body).from !== 'connection')
    const doneOn = decision?.state === 'done' ? decision.doneOn! : null
    const cameBack = doneOn !== null && acted !== 'done' && body.evidence.to > addDays(doneOn, LATE_DAYS)
    const state = acted ?? stateOf(decision, isGone)
    return { body, foundAt: kept?.foundAt ?? null, action: row?.action ?? null, decision, state, cameBack }
  })
  // what was agreed or done, and is found no more
  for (const [id, decision] of decisions)
    if (!ids.has(id) && decision.state !== null)
      all.push({ body: decision.body, foundAt: null, action: null, decision, cameBack: false, state: stateOf(decision, true) })
  const kept = withoutDone(all)
  const owners = await ownersOf(
    seen,
    kept.map(({ body }) => body),
  )
  const owned = kept.map(one => ({ ...one, owner: owners.get(one.body.id) ?? null })).sort((a, b) => (a.body.id < b.body.id ? -1 : 1))
  return asker.bound ? owned.filter(({ owner }) => owner) : owned
}

/**
 * Leaves out what the bill alone still finds of a resource that was dealt with a moment ago: it reaches the deed hardly, or not yet. What
 * people have decided about stays.
 */
function withoutDone<S extends Omit<FoundSaving, 'owner'>>(all: readonly S[]): S[] {
  const done = new Map<string, string>()
  for (const { state, body, action, decision } of all) {
    if (state !== 'done') continue
    const day = (action?.doneAt ?? decision?.doneOn ?? '').slice(0, 10)
    if (day > (done.get(body.resourceId) ?? '')) done.set(body.resourceId, day)
  }
  return all.filter(({ state, decision, body }) => {
    const day = done.get(body.resourceId)
    return (
      day === undefined ||
      state !== 'spotted' ||
      decision !== null ||
      detectorFor(body).from === 'connection' ||
      body.evidence.to > addDays(day, LATE_DAYS)
    )
  })
}

/** What was decided, as it stands today: what was set aside for a time comes back. */
function stateOf(decision: StoredDecision | null, isGone: boolean): OpportunityState {
  const state: DecidedState | null = decision?.state ?? null
  if (state === 'done') return 'done'
  if (isGone) return 'gone'
  const isAside = state === 'set aside' && (decision!.lookAgain === null || decision!.lookAgain > new Date().toISOString().slice(0, 10))
  return state === 'set aside' ? (isAside ? 'set aside' : 'spotted') : (state ?? 'spotted')
}

/** Whose the resources of opportunities are, on the last day that each was looked at. */
export async function ownersOf(seen: ChargesSeen, bodies: readonly Opportunity[]): Promise<Map<string, Owner>> {
  const days = [...new Set(bodies.map(({ evidence }) => evidence.to))]
  const asked = days.map(async day => {
    const own = bodies.filter(({ evidence }) => evidence.to === day)
    const resources = own.map(({ resourceId: id, resourceName: name, provider, region, subAccountName, tags }) => ({
      ...{ id, name, provider, region, subAccountName, tags },
    }))
    const { result } = await seen.ask('whose', { day, resources })
    const byResource = new Map(Object.entries(result))
    return own.map(({ id, resourceId }) => [id, byResource.get(resourceId) ?? null] as const)
  })
  return new Map((await Promise.all(asked)).flat())
}

/** Sees to it that one is for whoever asks, and that something here can act on it. @throws Problem else. */
export async function actedOnFor(work: SavingsWork, id: string): Promise<Opportunity> {
  const found = (await foundSavings(work)).find(({ body }) => body.id === id)
  if (!found) throw unknownOpportunity(id)
  if (!actingOn(found.body))
    throw conflict(
      `Nothing here acts on ${found.body.resourceName}`,
      'Do it where it runs, and say here that it is done: the bill shows what was saved.',
    )
  return found.body
}

export const unknownOpportunity = (id: string) => notFound('opportunity', `Nothing that can be saved has the id «${id}».`)

/** Whether nothing is done about it yet, and it can be had. */
export const isOpen = ({ state }: Pick<FoundSaving, 'state'>) => state === 'spotted' || state === 'agreed' || state === 'under way'

/** The detector that found it. @throws RangeError for one that this version does not know. */
export const detectorFor = ({ detector }: Opportunity) => detectorOf(detector)
