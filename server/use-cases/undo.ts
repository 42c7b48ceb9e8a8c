import { actingOn } from '../../core/opportunity/acting'
import { undoOf, type Instruction } from '../../core/opportunity/instruction'
import type { Opportunity } from '../../core/opportunity/opportunity'
import { capabilityOf, connectorThatCan } from '../connectors/connect'
import type { Connector } from '../connectors/connector'
import type { Db } from '../db/database'
import { conflict } from '../problems/problem'
import { findOpportunity, type StoredAction } from '../stores/savings'
import { beginUndoing, findUndoing, noteUndoing } from '../stores/undone'
import { whyNotTo } from './as-it-stands'
import { attempt, settle, wasSent, type About, type OutsideDeed } from './tell-outside'

/** The job that undoes what was done about an opportunity. */
export const undoJob = (opportunity: string) => `undo ${opportunity}`

/** What undoes what was done about an opportunity from here; null where nothing does. */
export function undoing(body: Opportunity, action: Pick<StoredAction, 'state'> | null): Instruction | null {
  return action?.state === 'done' ? undoOf(actingOn(body)!.instruction) : null
}

/**
 * Undoes what was done, once: every try finds out what became of the one before, and looks anew whether the resource is still as it was
 * made. @throws Problem where nothing here undoes it, or it is not undone; ConnectorFailed where the service did not do it.
 */
export async function undoAction(db: Db, id: string, who: string, about: About): Promise<void> {
  const row = await findOpportunity(db, id)
  const instruction = row && undoing(row.opportunity.body, row.action)
  if (!row?.action || !instruction)
    throw conflict('It cannot be undone from here', 'Only what was done from here and can be changed back is undone.')
  const { opportunity, action } = row
  const { resourceId, resourceName, provider } = opportunity.body
  const connector = await connectorThatCan(db, ['inventory', 'actions'], provider)
  const begun = await beginUndoing(db, action, who)
  const deed: OutsideDeed = {
    ...{ connector, instruction, resourceId, resourceName, who },
    told: async () => (await findUndoing(db, action.id))!,
    note: (state, step, more) => noteUndoing(db, action, state, { ...step, what: `undo: ${step.what}` }, more),
    whyNot: () => whyNotUndo(connector, resourceId, instruction),
    lapsedHelp: 'It is left as it is.',
  }
  if (wasSent(begun.state) && (await settle(deed))) return
  await attempt(deed, about)
}

/** Why a change is not undone as the resource stands; null where nothing speaks against it. */
async function whyNotUndo(connector: Connector, resourceId: string, instruction: Instruction): Promise<string | null> {
  const condition = await capabilityOf(connector, 'inventory').condition(resourceId)
  if (!condition) return 'it is not there any more'
  const why = whyNotTo(instruction, condition)
  if (why) return why
  if (instruction.deed === 'schedule' && !condition.plan.length) return 'it has no hours any more'
  return null
}
