import { Decimal } from '../../core/money/decimal'
import { actingOn } from '../../core/opportunity/acting'
import { instructionWords } from '../../core/opportunity/instruction'
import type { ActsPreview } from '../../shared/contracts/savings'
import { saidOf } from '../problems/fault'
import { conflict } from '../problems/problem'
import { secondPersonAbove } from '../stores/decisions'
import { approveAction, connectorFor, waitsForSecond } from './act'
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

/** Why nothing here can act on an opportunity; null where it can. */
async function whyNotHere({ database }: SavingsWork, one: FoundSaving): Promise<string | null> {
  if (!actingOn(one.body)) return 'it takes a person where it runs'
  // what was tried and not done may be tried once more, and says itself why it does not hold
  const isTried = one.action !== null && one.action.state !== 'done'
  if (!isOpen(one) && !isTried) return `it is ${one.state}`
  try {
    await connectorFor(database.db, one.body)
    return null
  } catch (error) {
    return saidOf(error, `a connection for ${one.body.id}`)
  }
}

/** What acting on some opportunities would do; does nothing. */
export async function previewActs(work: SavingsWork, ids: readonly string[]): Promise<ActsPreview> {
  const all = await chosen(work, ids)
  const items: ActsPreview['items'] = []
  for (const one of all) {
    const { id, title, resourceName, monthlySaving, currency } = one.body
    const acting = actingOn(one.body)
    const does = acting && instructionWords(acting.instruction)
    items.push({
      id,
      title,
      resourceName,
      monthlySaving,
      currency,
      does,
      undo: acting?.undo ?? null,
      isFinal: acting?.instruction.deed === 'delete',
      why: await whyNotHere(work, one),
    })
  }
  const able = new Set(items.filter(({ why }) => why === null).map(({ id }) => id))
  const whole = await wholeOf(
    work,
    all.map(({ body }) => body).filter(({ id }) => able.has(id)),
  )
  return { items, total: whole.total, currency: whole.currency, needsSecond: await needsSecond(work, whole.total) }
}

/** Whether so much a month together takes a second person. */
async function needsSecond({ database }: SavingsWork, total: string): Promise<boolean> {
  const above = await secondPersonAbove(database.db)
  return above !== null && new Decimal(total).gt(above)
}

/**
 * Records the approval of some opportunities, all or none. @returns those that can be carried out now; the others wait for a second person.
 * @throws Problem naming what nothing here can act on, or where the same person approves alone what takes two.
 */
export async function approveActs(work: SavingsWork, ids: readonly string[], who: string): Promise<string[]> {
  const all = await chosen(work, ids)
  const [only, another] = all
  if (only && !another && actingOn(only.body)) await connectorFor(work.database.db, only.body) // says by itself what lacks
  const refused: string[] = []
  for (const one of all) {
    const why = await whyNotHere(work, one)
    if (why !== null) refused.push(`${one.body.resourceName}: ${why}`)
  }
  if (refused.length) throw conflict('Not all of it can be done from here', `${refused.join('; ')}. Nothing was approved.`)
  const { total } = await wholeOf(
    work,
    all.map(({ body }) => body),
  )
  const takesTwo = await needsSecond(work, total)
  // who approved alone is not their own second, whatever is approved with it
  const isOwn = ({ action }: FoundSaving) => action?.state === 'waiting' && action.approvedBy === who
  if (takesTwo && all.every(isOwn)) throw waitsForSecond
  const approved: string[] = []
  for (const { body, action } of all) {
    const { state } = await approveAction(work.database.db, body, who, takesTwo || action?.state === 'waiting')
    if (state !== 'waiting') approved.push(body.id)
  }
  return approved
}
