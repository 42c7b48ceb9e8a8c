import { actingOn } from '../../core/opportunity/acting'
import { instructionWords } from '../../core/opportunity/instruction'
import type { ActsPreview } from '../../shared/contracts/savings'
import { saidOf } from '../problems/fault'
import { conflict } from '../problems/problem'
import { approveAction, connectorFor } from './act'
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
  const isUnderWay = one.action && ['approved', 'sent', 'not known'].includes(one.action.state)
  if (!isOpen(one) && !isUnderWay) return `it is ${one.state}`
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
  return { items, total: whole.total, currency: whole.currency }
}

/** Records the approval of some opportunities, all or none. @throws Problem naming what nothing here can act on. */
export async function approveActs(work: SavingsWork, ids: readonly string[], who: string): Promise<void> {
  const all = await chosen(work, ids)
  const refused: string[] = []
  for (const one of all) {
    const why = await whyNotHere(work, one)
    if (why !== null) refused.push(`${one.body.resourceName}: ${why}`)
  }
  if (refused.length) throw conflict('Not all of it can be done from here', `${refused.join('; ')}. Nothing was approved.`)
  for (const { body } of all) await approveAction(work.database.db, body, who)
}
