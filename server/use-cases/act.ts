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
import type { Capability, Connector, ResourceName } from '../connectors/connector'
import type { Db } from '../db/database'
import { Problem, conflict, notFound } from '../problems/problem'
import { findJob } from '../stores/jobs'
import { findRateCard } from '../stores/rate-cards'
import { asItStands } from './as-it-stands'
import { factsNow, type FactsFrom } from './detector-facts'
import { foundAgain } from './savings-found'
import { attempt, settle, wasSent, type About, type OutsideDeed } from './tell-outside'
import { findOpportunity, noteStep, openActions, type StoredAction, type StoredOpportunity } from '../stores/savings'

type Act = { from: FactsFrom; connector: Connector; opportunity: StoredOpportunity; approved: StoredAction; who: string }

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
  const deed = deedOf(act)
  if (wasSent(approved.state) && (await settle(deed))) return
  await attempt(deed, about)
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

/** Finds out what became of what a process was killed over; does nothing. @throws Problem when nobody knows. */
export async function findOut(from: FactsFrom, id: string, who: string): Promise<void> {
  const row = await findOpportunity(from.db, id)
  if (!row?.action || !wasSent(row.action.state)) return
  const connector = await connectorThatCan(from.db, ['actions'], row.opportunity.body.provider)
  await settle(deedOf({ from, connector, opportunity: row.opportunity, approved: row.action, who }))
}

/** Finds out what became of everything that a connection was told and did not answer. */
export async function settleOpen(from: FactsFrom, connector: Connector, who: string): Promise<void> {
  if (!connector.can.actions) return
  for (const { opportunity, action } of await openActions(from.db)) {
    if (opportunity.body.provider !== connector.provider) continue
    if ((await findJob(from.db, actJob(opportunity.id)))?.claimedBy) continue // someone is at it
    await settle(deedOf({ from, connector, opportunity, approved: action, who })).catch((error: unknown) => {
      if (!(error instanceof Problem)) throw error // that it is not known stands in its steps
    })
  }
}

/** What was approved, as it is told to the service. */
function deedOf(act: Act): OutsideDeed {
  const { from, connector, opportunity, approved, who } = act
  const { resourceId, resourceName } = opportunity.body
  const { instruction } = actingOn(opportunity.body)!
  return {
    ...{ connector, instruction, resourceId, resourceName, who },
    told: async () => (await known(from.db, opportunity.id)).action!,
    note: (state, step, more) => noteStep(from.db, approved, state, step, more),
    whyNot: () => whyNot(act),
    lapsedHelp: `Refresh the savings, and approve it again if it is still to be ${deeds[instruction.deed].past}.`,
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
  if (!again) return 'it is not found any more: the bill, prices, thresholds or choices have changed'
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
