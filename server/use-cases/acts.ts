import { Decimal } from '../../core/money/decimal'
import { actingOn } from '../../core/opportunity/acting'
import { instructionWords } from '../../core/opportunity/instruction'
import type { Opportunity } from '../../core/opportunity/opportunity'
import type { ActsPreview } from '../../shared/contracts/savings'
import { saidOf } from '../problems/fault'
import { conflict } from '../problems/problem'
import { secondPersonAbove } from '../stores/decisions'
import { approveAll } from '../stores/savings'
import { connectorFor, waitsForSecond } from './act'
import { foundSavings, isOpen, unknownOpportunity, type FoundSaving, type SavingsWork } from './savings-found'
import { wholeOf } from './whole-saving'

async function chosen(work: SavingsWork, ids: readonly string[]): Promise<FoundSaving[]> {
  const found = new Map((await foundSavings(work)).map(one => [one.body.id, one]))
  return [...new Set(ids)].map(id => {
    const one = found.get(id)
    if (!one) throw unknownOpportunity(id)
    return one
  })
}

/** What an opportunity is acted on through, or why nothing here can. */
type Way = { connection: string } | { why: string; error: unknown }

/** Finds the ways of opportunities: services are asked once for all that is alike. */
function waysOf({ database }: SavingsWork): (one: FoundSaving) => Promise<Way> {
  const asked = new Map<string, Promise<Way>>()
  const ask = async (body: Opportunity): Promise<Way> => {
    try {
      return { connection: (await connectorFor(database.db, body)).name }
    } catch (error) {
      return { why: saidOf(error, `a connection for ${body.id}`), error }
    }
  }
  return async one => {
    const acting = actingOn(one.body)
    // what was tried and not done may be tried once more, and says itself why it does not hold
    const isTried = one.action !== null && one.action.state !== 'done'
    const why = !acting ? 'it takes a person where it runs' : !isOpen(one) && !isTried ? `it is ${one.state}` : null
    if (why !== null) return { why, error: conflict(`Nothing here acts on ${one.body.resourceName}`, `${why}.`) }
    const { type, deed } = acting!.instruction
    const alike = JSON.stringify([one.body.provider, one.body.detector, type, deed])
    const known = asked.get(alike) ?? ask(one.body)
    asked.set(alike, known)
    return known
  }
}

/** What acting on some opportunities would do; does nothing. */
export async function previewActs(work: SavingsWork, ids: readonly string[]): Promise<ActsPreview> {
  const all = await chosen(work, ids)
  const wayOf = waysOf(work)
  const items: ActsPreview['items'] = []
  for (const one of all) {
    const { id, title, resourceName, monthlySaving, currency } = one.body
    const acting = actingOn(one.body)
    const way = await wayOf(one)
    items.push({
      ...{ id, title, resourceName, monthlySaving, currency, undo: acting?.undo ?? null },
      does: acting && instructionWords(acting.instruction),
      isFinal: acting?.instruction.deed === 'delete',
      why: 'why' in way ? way.why : null,
    })
  }
  const able = new Set(items.filter(({ why }) => why === null).map(({ id }) => id))
  const whole = await wholeOf(
    work,
    all.map(({ body }) => body).filter(({ id }) => able.has(id)),
  )
  return {
    items,
    total: whole.total,
    currency: whole.currency,
    needsSecond: isAbove(whole.total, await secondPersonAbove(work.database.db)),
  }
}

/** Whether so much a month together takes a second person. */
const isAbove = (total: string, above: string | null): boolean => above !== null && new Decimal(total).gt(above)

/**
 * Records the approval of some opportunities, all or none. @returns those that can be carried out now; the others wait for a second person.
 * @throws Problem naming what nothing here can act on, or where the same person approves alone what takes two.
 */
export async function approveActs(work: SavingsWork, ids: readonly string[], who: string): Promise<string[]> {
  const all = await chosen(work, ids)
  const wayOf = waysOf(work)
  const ways = await Promise.all(all.map(wayOf))
  const refused = all.flatMap(({ body }, at) => {
    const way = ways[at]!
    return 'why' in way ? [{ name: body.resourceName, ...way }] : []
  })
  // one alone says by itself what it lacks
  if (refused.length && all.length === 1) throw refused[0]!.error
  if (refused.length)
    throw conflict(
      'Not all of it can be done from here',
      `${refused.map(({ name, why }) => `${name}: ${why}`).join('; ')}. Nothing was approved.`,
    )
  const { total } = await wholeOf(
    work,
    all.map(({ body }) => body),
  )
  const above = await secondPersonAbove(work.database.db)
  const takesTwo = isAbove(total, above)
  // who approved alone is not their own second, whatever is approved with it
  if (takesTwo && all.every(({ action }) => action?.state === 'waiting' && action.approvedBy === who)) throw waitsForSecond
  const approved = await approveAll(
    work.database.db,
    all.map(({ body, action }, at) => ({
      ...{ id: body.id, body, detector: body.detector, connection: (ways[at] as { connection: string }).connection },
      needsSecond: takesTwo || (action?.state === 'waiting' && above !== null),
    })),
    who,
  )
  return approved.filter(({ state }) => state !== 'waiting').map(({ opportunityId }) => opportunityId)
}
