import { deeds } from '../../core/opportunity/deeds'
import type { Instruction } from '../../core/opportunity/instruction'
import type { ActionState, ActionStep } from '../../shared/contracts/savings'
import { capabilityOf } from '../connectors/connect'
import { ConnectorFailed, type ActionOutcome, type Connector } from '../connectors/connector'
import { saidOf } from '../problems/fault'
import { Problem } from '../problems/problem'

/** Notes what is about to be done, in words that follow «whether»; throws where it must not be done any more. */
export type About = (what: string) => Promise<void>

/** How far it has been told: the key that goes with every try, and how many there were. */
export type Told = { requestKey: string; tries: number }

/** One deed that is told to a service: it is done once, however often it is tried. */
export type OutsideDeed = {
  connector: Connector
  instruction: Instruction
  resourceId: string
  resourceName: string
  who: string
  /** As it is kept at this moment. */
  told: () => Promise<Told>
  /** Keeps where it stands; `anew`: the next try has another key, since what was refused under one is refused under it for good. */
  note: (state: ActionState, step: ActionStep, more?: { doneAt?: string; tries?: number; anew?: boolean }) => Promise<void>
  /** Why it must not be done at this moment; null where nothing speaks against it. */
  whyNot: () => Promise<string | null>
  /** What a person does where it has lapsed. */
  lapsedHelp: string
}

/** Whether nobody knows what became of the last try. */
export const wasSent = (state: ActionState) => state === 'sent' || state === 'not known'

/**
 * Asks what became of the last try and notes it. @returns whether it was done; else it surely was not.
 * @throws Problem when nobody knows: then nothing is sent.
 */
export async function settle({ connector, instruction, resourceName, who, told, note }: OutsideDeed): Promise<boolean> {
  const doing = deeds[instruction.deed]
  const what = `ask what became of ${doing.now} ${resourceName}`
  let found: ActionOutcome
  try {
    found = await capabilityOf(connector, 'actions').outcomeOf((await told()).requestKey)
  } catch (error) {
    if (!(error instanceof ConnectorFailed)) throw error
    await note('not known', stepOf(who, what, `not known: ${error.message}`))
    throw new Problem(
      'outside',
      'not-known',
      'Nobody knows whether it was done',
      `${connector.provider} does not say what became of ${doing.now} ${resourceName}: ${error.message}. Nothing is sent again before it does; look there, or ask again later.`,
    )
  }
  if (found.outcome === 'done') {
    await note('done', stepOf(who, what, `${doing.past} at ${found.at}`), { doneAt: found.at })
    return true
  }
  const outcome = found.outcome === 'refused' ? `refused: ${found.why}` : 'it was never received'
  await note('failed', stepOf(who, what, outcome), { anew: found.outcome === 'refused' })
  return false
}

/** Looks once more whether the reasons hold, and does it. @throws Problem where they do not; ConnectorFailed where it was not done. */
export async function attempt(deed: OutsideDeed, about: About): Promise<void> {
  const { connector, instruction, resourceId, resourceName, who, told, note, whyNot, lapsedHelp } = deed
  const doing = deeds[instruction.deed]
  const { requestKey, tries: before } = await told()
  const tries = before + 1
  const what = `${instruction.deed} ${resourceName}, try ${tries}`
  const noted = (state: ActionState, outcome: string, more: { tries?: number; anew?: boolean } = {}) =>
    note(state, stepOf(who, what, outcome), more)
  let why: string | null
  try {
    why = await whyNot()
  } catch (error) {
    await noted('failed', `not sent: ${saidOf(error, what)}`)
    // looking does nothing: whatever became of the question, nothing was done
    throw error instanceof ConnectorFailed ? new ConnectorFailed(error.message, true, error.status) : error
  }
  if (why) {
    await noted('lapsed', `not sent: ${why}`)
    throw new Problem('conflict', 'lapsed', 'The approval has lapsed', `${resourceName} was left alone: ${why}. ${lapsedHelp}`)
  }
  await about(`${resourceName} was ${doing.past}`)
  await noted('sent', 'sent', { tries })
  try {
    const { at } = await capabilityOf(connector, 'actions').carryOut(instruction, resourceId, requestKey)
    await note('done', stepOf(who, what, `${doing.past} at ${at}`), { doneAt: at })
  } catch (error) {
    if (error instanceof ConnectorFailed && error.sure) {
      // who is asked to wait has not been refused: it stays approved
      await noted(error.waitSeconds === null ? 'failed' : 'approved', error.message, { anew: true })
      throw error
    }
    await noted('not known', `${saidOf(error, what)}; whether it was ${doing.past} is not known`)
    if (!(error instanceof ConnectorFailed)) throw error
    if (!(await settle(deed))) throw new ConnectorFailed(error.message, true)
  }
}

const stepOf = (who: string, what: string, outcome: string): ActionStep => ({ at: new Date().toISOString(), who, what, outcome })
