import { Decimal, decimalText } from '../../core/money/decimal'
import { actingOn, byHand } from '../../core/opportunity/acting'
import type { Detector } from '../../core/opportunity/detector'
import { connectionDetectors, detectors } from '../../core/opportunity/detectors'
import { instructionWords } from '../../core/opportunity/instruction'
import type { Opportunity } from '../../core/opportunity/opportunity'
import type { ActionPreview, OpportunityView, SavingsDecision, SavingsState } from '../../shared/contracts/savings'
import { connectors, connectorThatCan, withConnector } from '../connectors/connect'
import type { Connector } from '../connectors/connector'
import { Problem, conflict } from '../problems/problem'
import { decide, secondPersonAbove } from '../stores/decisions'
import { currentPlan } from '../stores/organisation'
import { findRateCard } from '../stores/rate-cards'
import { keepFound, type StoredAction } from '../stores/savings'
import { settleOpen } from './act'
import { asItStands } from './as-it-stands'
import { canMeet, factsKept, type FactsFrom } from './detector-facts'
import { observe } from './observe'
import { detectorFor, foundSavings, isOpen, unknownOpportunity, type SavingsWork } from './savings-found'
import { savingsLedger } from './savings-ledger'
import { undoing } from './undo'
import { wholeOf } from './whole-saving'
import { measure } from './measure'
import { finders } from './savings-thresholds'
import type { Work } from './work'

/**
 * Looks through a connection for what can be saved, with every detector that it has what for, and keeps what is found; asks first what
 * became of actions that are not known to have ended. @returns how much that is.
 */
export async function lookForSavings(from: FactsFrom & Pick<Work, 'refreshMeasured'>, connector: Connector, who: string): Promise<number> {
  const { db } = from
  await settleOpen(from, connector, who)
  const today = (await connector.now()).slice(0, 10)
  const card = await findRateCard(db, connector.provider, today)
  if (!card)
    throw new Problem(
      'conflict',
      'no-rate-card',
      'There is nothing to price a saving with',
      `Drop the rate card of ${connector.provider} under Sources first.`,
    )
  const able = connectionDetectors.filter(({ needs }) => canMeet(connector, needs))
  await observe(
    db,
    connector,
    able.map(({ needs }) => needs),
    today,
  )
  let count = 0
  for (const detector of able) {
    const found = await detector.find(factsKept(from, connector, detector.needs, today), { card, today })
    await keepFound(db, found, { detector: detector.detector, connection: connector.name })
    count += found.length
  }
  // last: the first time it takes as long as everything else together, and what it is for looks at the bill
  if (connector.can.measurements && (await measure(db, connector, today))) await from.refreshMeasured()
  return count
}

/** Everything the place shows: opportunities with owner and state, what they come to, and the ledger. */
export async function savingsState(work: SavingsWork): Promise<SavingsState> {
  const { database, seen, people } = work
  const found = await foundSavings(work)
  const [saved, whole, ways, ledger, all, { revision }, above] = await Promise.all([
    currentPlan(database.db),
    wholeOf(
      work,
      found.filter(isOpen).map(({ body }) => body),
    ),
    finders(work, found),
    savingsLedger(work, found),
    connectors(database.db),
    seen.ask('facts', undefined),
    secondPersonAbove(database.db),
  ])
  const isReached = (detector: Detector, { provider }: Opportunity) =>
    detector.from === 'connection' ||
    all.some(connector => connector.provider === provider && connector.can.inventory && connector.can.actions)
  const seenTo = new Map(ledger.map(line => [line.id, line]))
  const { counted, ...total } = whole
  const opportunities = found.map((one): OpportunityView => {
    const { body, decision, action } = one
    const { effects: _, ...own } = body
    const target = one.owner?.target
    const centre = saved?.plan.centres.find(c => c.id === target)
    const detector = detectorFor(body)
    const acting = actingOn(body, detector)
    const line = seenTo.get(body.id)
    return {
      ...own,
      state: one.state === 'done' && line?.seen != null && line.daysSince >= DAYS_TO_MEASURE ? 'measured' : one.state,
      foundAt: one.foundAt,
      firstYear: decimalText(new Decimal(body.monthlySaving).times(12).minus(body.oneOff?.amount ?? 0)),
      counted: Object.hasOwn(counted, body.id) ? counted[body.id]! : null,
      canDo: acting && isReached(detector, body) ? { deed: acting.instruction.deed } : null,
      byHand: byHand(body, detector),
      centre: centre?.name ?? saved?.plan.pools.find(p => p.id === target)?.name ?? null,
      owner: centre?.owner ? people.nameOf(centre.owner) : null,
      cameBack: one.cameBack,
      decision: decision && {
        ...{ state: decision.state, who: people.nameOf(decision.who), at: decision.at, reason: decision.reason },
        ...{ lookAgain: decision.lookAgain, due: decision.due, doneOn: decision.doneOn },
        notes: decision.notes.map(note => ({ ...note, who: people.nameOf(note.who) })),
      },
      action: action && {
        state: action.state,
        approvedBy: people.nameOf(action.approvedBy),
        approvedAt: action.approvedAt,
        doneAt: action.doneAt,
        tries: action.tries,
        steps: action.steps.map(step => ({ ...step, who: people.nameOf(step.who) })),
        undo: undoWords(body, action),
      },
    }
  })
  return {
    connected: all.some(connector => connectionDetectors.some(({ needs }) => canMeet(connector, needs))),
    said: detectors.flatMap(({ detector, says }) => {
      const open = found.filter(one => one.body.detector === detector && isOpen(one)).length
      return open ? [says(open)] : []
    }),
    ...{ opportunities, whole: total, finders: ways, ledger, revision, secondPersonAbove: above },
  }
}

function undoWords(body: Opportunity, action: StoredAction): string | null {
  const instruction = undoing(body, action)
  return instruction && instructionWords(instruction)
}

/** So many days of the bill after a deed before it is called measured. */
const DAYS_TO_MEASURE = 7

/** Keeps what somebody decides about opportunities that are theirs. @throws Problem where one is not, or is being acted on. */
export async function decideSavings(work: SavingsWork, { ids, ...asked }: SavingsDecision): Promise<void> {
  const found = new Map((await foundSavings(work)).map(one => [one.body.id, one]))
  const about = [...new Set(ids)].map(id => {
    const one = found.get(id)
    if (!one) throw unknownOpportunity(id)
    const isActedOn = one.action && ['waiting', 'approved', 'sent', 'not known', 'done'].includes(one.action.state)
    if (isActedOn && asked.state !== undefined)
      throw conflict(
        `${one.body.resourceName} was acted on from here`,
        'What became of it stands in its steps; a note can be written, and a day be set.',
      )
    return one.body
  })
  await decide(work.database.db, about, asked, work.asker.id)
}

/** What approving would do; does nothing. */
export async function previewAction({ database }: Pick<Work, 'database'>, found: Opportunity): Promise<ActionPreview> {
  const { steps, undo } = actingOn(found)!
  const connector = await connectorThatCan(database.db, ['inventory', 'actions'], found.provider)
  const { why } = await withConnector(() => asItStands(connector, found))
  return { id: found.id, why, steps, undo }
}
