import { actingOn } from '../../../core/opportunity/acting'
import { isDeletion } from '../../../core/opportunity/instruction'
import { findOpportunity } from '../../stores/savings'
import { carryOut } from '../act'
import { approveActs } from '../acts'
import { patiently } from '../patiently'
import { foundSavings, type SavingsWork } from '../savings-found'
import type { About } from '../tell-outside'
import type { Tools } from '../work'
import { outcomeOf, type Outcome } from './outcome'

const SECOND = 'it saves more than one may approve alone: approve it in Savings'

/**
 * Acts on a saving as somebody does from Savings: approved in the order's name, looked at once more, and told to its cloud. What deletes
 * something, and what takes a second person, waits for somebody there.
 */
export async function actOnSaving(work: SavingsWork, { cube }: Tools, id: string, about: About, signal: AbortSignal): Promise<Outcome> {
  const { db } = work.database
  let waits: string | null = null
  const outcome = await outcomeOf(async () => {
    const stored = await findOpportunity(db, id)
    if (stored?.action?.state === 'done') return 'it was done before'
    const found = (await foundSavings(work)).find(({ body }) => body.id === id)
    if (!found) return 'it is not found any more'
    const acting = actingOn(found.body)
    if (!acting) waits = 'it takes a person where it runs'
    else if (stored?.action?.state === 'waiting') waits = SECOND
    else if (isDeletion(acting.instruction)) waits = 'what deletes something is approved by a person: look at it in Savings'
    else if (!(await approveActs(work, [id], work.asker.id)).length) waits = SECOND
    if (waits) return waits
    await patiently(() => carryOut({ db, charges: cube.within(null) }, id, work.asker.id, about), signal)
    return undefined
  })
  return waits ? { state: 'asked', said: waits } : outcome
}
