import { metrics } from '../../core/measured/metrics'
import { quantile } from '../../core/measured/quantile'
import { Decimal } from '../../core/money/decimal'
import { actingOn } from '../../core/opportunity/acting'
import { deeds } from '../../core/opportunity/deeds'
import { detectorOf } from '../../core/opportunity/detectors'
import { instructionWords, type Instruction } from '../../core/opportunity/instruction'
import { sleepsIn } from '../../core/opportunity/measured/quiet-hours'
import { sizeMetrics } from '../../core/opportunity/measured/too-large'
import type { Opportunity, Resource } from '../../core/opportunity/opportunity'
import { addDays, type Day } from '../../core/time/day'
import { capabilityOf, connectorThatCan, withConnector } from '../connectors/connect'
import { ConnectorFailed, type ActionOutcome, type Capability, type Connector, type ResourceName } from '../connectors/connector'
import type { Db } from '../db/database'
import { saidOf } from '../problems/fault'
import { Problem, conflict, notFound } from '../problems/problem'
import { findJob } from '../stores/jobs'
import { findRateCard } from '../stores/rate-cards'
import { asItStands } from './as-it-stands'
import { factsNow, type FactsFrom } from './detector-facts'
import { foundAgain } from './savings-found'
import { findOpportunity, noteStep, openActions, type StoredAction, type StoredOpportunity } from '../stores/savings'

type Act = { from: FactsFrom; connector: Connector; opportunity: StoredOpportunity; approved: StoredAction; who: string }
/** Notes what is about to be done, in words that follow «whether»; throws where it must not be done any more. */
type About = (what: string) => Promise<void>

/** The job that acts on an opportunity: there is one at a time, whatever process does it. */
export const actJob = (opportunity: string) => `act ${opportunity}`

/** One person is not enough for so much. */
export const waitsForSecond = conflict(
  'It waits for a second person',
  'It saves more than one person may approve alone: somebody else looks at it and approves it too.',
)

/**
 * Carries out what was approved, once: asked again when done, it does nothing. Every try finds out what became of the one before, and looks
 * anew whether what the approval rests on still holds.
 * @throws Problem when it is not approved, not done, or nobody knows whether it was; ConnectorFailed when the service did not do it.
 */
export async function carryOut(from: FactsFrom, id: string, who: string, about: About): Promise<void> {
  const { opportunity, action: approved } = await known(from.db, id)
  if (!approved || approved.state === 'lapsed') throw conflict('It is not approved', 'Look at what would be done, and approve it.')
  if (approved.state === 'done') return
  if (approved.state === 'waiting') throw waitsForSecond
  const act: Act = { from, connector: await connectorFor(from.db, opportunity.body), opportunity, approved, who }
  if (wasSent(approved) && (await settle(act))) return
  await attempt(act, about)
}

async function known(db: Db, id: string) {
  const row = await findOpportunity(db, id)
  if (!row) throw notFound('opportunity', `Nothing that can be saved has the id «${id}».`)
  return row
}

/**
 * The connection that an opportunity is acted on through: it has what is looked at just before, and can do what is to be done.
 * @throws Problem when there is none.
 */
export async function connectorFor(db: Db, found: Opportunity): Promise<Connector> {
  const detector = detectorOf(found.detector)
  const isMeasured = found.evidence.series.some(({ metric }) => metric)
  const wanted: Capability[] = ['inventory', 'actions']
  if (detector.from === 'connection') {
    const { measurements, events } = detector.needs
    if (measurements?.length) wanted.push('measurements')
    if (events) wanted.push('events')
  } else if (isMeasured) wanted.push('measurements')
  const connector = await connectorThatCan(db, wanted, found.provider)
  const { type, deed } = actingOn(found, detector)!.instruction
  if (detector.from !== 'connection' && !(await withConnector(() => capabilityOf(connector, 'actions').of(type))).includes(deed))
    throw conflict(`${connector.name} does not ${deed} for a ${type}`, 'Do it where it runs, and say here that it is done.')
  return connector
}

const wasSent = ({ state }: StoredAction) => state === 'sent' || state === 'not known'

/** Finds out what became of what a process was killed over; does nothing. @throws Problem when nobody knows. */
export async function findOut(from: FactsFrom, id: string, who: string): Promise<void> {
  const row = await findOpportunity(from.db, id)
  if (!row?.action || !wasSent(row.action)) return
  const connector = await connectorThatCan(from.db, ['actions'], row.opportunity.body.provider)
  await settle({ from, connector, opportunity: row.opportunity, approved: row.action, who })
}

/** Finds out what became of everything that a connection was told and did not answer. */
export async function settleOpen(from: FactsFrom, connector: Connector, who: string): Promise<void> {
  if (!connector.can.actions) return
  for (const { opportunity, action } of await openActions(from.db)) {
    if (opportunity.body.provider !== connector.provider) continue
    if ((await findJob(from.db, actJob(opportunity.id)))?.claimedBy) continue // someone is at it
    await settle({ from, connector, opportunity, approved: action, who }).catch((error: unknown) => {
      if (!(error instanceof Problem)) throw error // that it is not known stands in its steps
    })
  }
}

/**
 * Asks what became of the last try and notes it. @returns whether it was done; else it surely was not.
 * @throws Problem when nobody knows: then nothing is sent.
 */
async function settle(act: Act): Promise<boolean> {
  const { from, connector, approved, opportunity, who } = act
  const { db } = from
  const { resourceName } = opportunity.body
  const doing = deeds[actingOn(opportunity.body)!.instruction.deed]
  const what = `ask what became of ${doing.now} ${resourceName}`
  let found: ActionOutcome
  try {
    found = await capabilityOf(connector, 'actions').outcomeOf(approved.requestKey)
  } catch (error) {
    if (!(error instanceof ConnectorFailed)) throw error
    await noteStep(db, approved, 'not known', stepOf(who, what, `not known: ${error.message}`))
    throw new Problem(
      'outside',
      'not-known',
      'Nobody knows whether it was done',
      `${connector.provider} does not say what became of ${doing.now} ${resourceName}: ${error.message}. Nothing is sent again before it does; look there, or ask again later.`,
    )
  }
  if (found.outcome === 'done') {
    await noteStep(db, approved, 'done', stepOf(who, what, `${doing.past} at ${found.at}`), { doneAt: found.at })
    return true
  }
  const outcome = found.outcome === 'refused' ? `refused: ${found.why}` : 'it was never received'
  // what was refused under a key is refused under it for good
  await noteStep(db, approved, 'failed', stepOf(who, what, outcome), { anew: found.outcome === 'refused' })
  return false
}

/** Looks once more whether the reasons hold, and does it. */
async function attempt(act: Act, about: About): Promise<void> {
  const { from, connector, opportunity, who } = act
  const { db } = from
  const { resourceId, resourceName } = opportunity.body
  const { instruction } = actingOn(opportunity.body)!
  const doing = deeds[instruction.deed]
  const approved = (await known(db, opportunity.id)).action! // as it stands now: its key may be another
  const tries = approved.tries + 1
  const what = `${instruction.deed} ${resourceName}, try ${tries}`
  const note = (
    state: 'approved' | 'sent' | 'failed' | 'lapsed' | 'not known',
    outcome: string,
    more: { tries?: number; anew?: boolean } = {},
  ) => noteStep(db, approved, state, stepOf(who, what, outcome), more)
  let why: string | null
  try {
    why = await whyNot(act)
  } catch (error) {
    await note('failed', `not sent: ${saidOf(error, what)}`)
    // looking does nothing: whatever became of the question, nothing was done
    throw error instanceof ConnectorFailed ? new ConnectorFailed(error.message, true, error.status) : error
  }
  if (why) {
    await note('lapsed', `not sent: ${why}`)
    throw new Problem(
      'conflict',
      'lapsed',
      'The approval has lapsed',
      `${resourceName} was left alone: ${why}. Look again for what can be saved, and approve anew if it still is to be ${doing.past}.`,
    )
  }
  await about(`${resourceName} was ${doing.past}`)
  await note('sent', 'sent', { tries })
  try {
    const { at } = await capabilityOf(connector, 'actions').carryOut(instruction, resourceId, approved.requestKey)
    await noteStep(db, approved, 'done', stepOf(who, what, `${doing.past} at ${at}`), { doneAt: at })
  } catch (error) {
    if (error instanceof ConnectorFailed && error.sure) {
      // who is asked to wait has not been refused: it stays approved
      await note(error.waitSeconds === null ? 'failed' : 'approved', error.message, { anew: true })
      throw error
    }
    await note('not known', `${saidOf(error, what)}; whether it was ${doing.past} is not known`)
    if (!(error instanceof ConnectorFailed)) throw error
    if (!(await settle({ ...act, approved }))) throw new ConnectorFailed(error.message, true)
  }
}

/** Why what the approval rests on does not hold at this moment; null where it does. */
async function whyNot({ from, connector, opportunity: { body }, approved }: Act): Promise<string | null> {
  const { instruction } = actingOn(body)!
  const { resource, why } = await asItStands(connector, body)
  if (why) return why
  const detector = detectorOf(body.detector)
  const today = (await connector.now()).slice(0, 10)
  if (detector.from === 'connection') {
    const card = await findRateCard(from.db, connector.provider, today)
    if (!card) return `no rate card of ${connector.provider} holds today`
    return detector.whyNot(body, await factsNow(from, connector, resource as Resource, detector.needs, today), { card, today })
  }
  const again = await foundAgain(from.charges, from.db, body.id)
  if (!again) return 'it is not found any more: the bill, prices or thresholds have changed'
  const toDo = again.instruction && instructionWords(again.instruction)
  if (toDo !== instructionWords(instruction)) return `what is found now is ${toDo ? `to ${toDo}` : 'for a person to do'}`
  if (again.currency !== approved.currency || new Decimal(again.monthlySaving).lt(approved.promisedMonthly))
    return `it would save ${again.monthlySaving} ${again.currency} a month now, not ${approved.promisedMonthly}`
  return measuredSince(connector, body, instruction, today)
}

/** What was measured since, today and the day before, that speaks against it; null where nothing does. */
async function measuredSince(
  connector: Connector,
  { evidence, resourceId }: Opportunity,
  instruction: Instruction,
  today: Day,
): Promise<string | null> {
  const resource: ResourceName = { type: instruction.type, id: resourceId }
  const asleep = instruction.deed === 'schedule' ? instruction.asleep : null
  for (const { metric, threshold, isHighest } of evidence.series) {
    if (!metric || !threshold) continue
    const lately = await capabilityOf(connector, 'measurements').readings(resource, metric, addDays(today, -1), addDays(today, 1))
    // what is to stand still in some hours may be used in the others
    const counting = asleep ? lately.filter(({ at }) => sleepsIn(asleep, at.slice(0, 10), Number(at.slice(11, 13)))) : lately
    const values = counting.map(({ value }) => value)
    const { what, unit } = metrics[metric]
    const seen =
      !asleep && sizeMetrics.includes(metric)
        ? (quantile(Float32Array.from(values), 95) ?? 0) // a size may be too small for some minutes
        : isHighest || asleep
          ? Math.max(0, ...values)
          : values.reduce((sum, value) => sum + value, 0)
    if (seen >= threshold.value)
      return `${seen} ${unit} ${what} since yesterday, ${threshold.label.replace(/^the line is /, '')} is ${threshold.value}`
  }
  return null
}

const stepOf = (who: string, what: string, outcome: string) => ({ at: new Date().toISOString(), who, what, outcome })
