import type { Owner } from '../../core/allocation/whose'
import { Decimal, decimalText } from '../../core/money/decimal'
import { scaledText } from '../../core/money/scaled'
import { detectorOf, detectors } from '../../core/opportunity/detectors'
import { promisedSince, realisedSaving } from '../../core/opportunity/realised'
import { addDays, daysBetween } from '../../core/time/day'
import type { ActionPreview, LedgerLine, OpportunityView, SavingsState } from '../../shared/contracts/savings'
import { capabilityOf, connectors, connectorThatCan, withConnector } from '../connectors/connect'
import type { Connector } from '../connectors/connector'
import { Problem, notFound } from '../problems/problem'
import type { ChargesSeen } from '../charges/charges-seen'
import type { Work } from './work'
import { currentPlan } from '../stores/organisation'
import { findRateCard } from '../stores/rate-cards'
import { findOpportunity, keepFound, listOpportunities, type StoredAction, type StoredOpportunity } from '../stores/savings'
import { settleOpen } from './act'
import { canMeet, factsKept, type FactsFrom } from './detector-facts'
import { observe } from './observe'
import { reportedTo } from '../charges/delivered-days'

type Needed = Pick<Work, 'database' | 'seen' | 'people' | 'asker'>
const ALWAYS = { start: '1970-01-01', end: '2200-01-01', leaveOut: {} }

/**
 * Looks through a connection for what can be saved, with every detector that it has what for, and keeps what is found; asks first what
 * became of actions that are not known to have ended. @returns how much that is.
 */
export async function lookForSavings(from: FactsFrom, connector: Connector, who: string): Promise<number> {
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
  const able = detectors.filter(({ needs }) => canMeet(connector, needs))
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
  return count
}

/** Everything the place shows: opportunities with owner and state, and the ledger. */
export async function savingsState(work: Needed): Promise<SavingsState> {
  const { database, seen, people, asker } = work
  const all = await listOpportunities(database.db)
  const saved = await currentPlan(database.db)
  const owners = await ownersOf(seen, all)
  const rows = asker.bound ? all.filter(({ opportunity }) => owners.get(opportunity.id)) : all
  const opportunities = rows.map(({ opportunity, action }): OpportunityView => {
    const { body } = opportunity
    const target = owners.get(opportunity.id)?.target
    const centre = saved?.plan.centres.find(c => c.id === target)
    const { deed, noun } = detectorOf(body.detector).action
    return {
      ...{ ...body, deed, noun },
      state: opportunity.state,
      foundAt: opportunity.foundAt,
      centre: centre?.name ?? saved?.plan.pools.find(p => p.id === target)?.name ?? null,
      owner: centre?.owner ? people.nameOf(centre.owner) : null,
      action: action && {
        state: action.state,
        approvedBy: people.nameOf(action.approvedBy),
        approvedAt: action.approvedAt,
        doneAt: action.doneAt,
        tries: action.tries,
        steps: action.steps.map(step => ({ ...step, who: people.nameOf(step.who) })),
      },
    }
  })
  const done = rows.filter((row): row is { opportunity: StoredOpportunity; action: StoredAction } => row.action?.state === 'done')
  const { revision } = await seen.ask('facts', undefined)
  const ledger = await Promise.all(done.map(row => ledgerLine(work, row)))
  return {
    connected: (await connectors(database.db)).some(connector => detectors.some(({ needs }) => canMeet(connector, needs))),
    said: detectors.flatMap(({ detector, says }) => {
      const open = opportunities.filter(one => one.detector === detector && (one.state === 'spotted' || one.state === 'under way'))
      return open.length ? [says(open.length)] : []
    }),
    opportunities,
    ledger,
    revision,
  }
}

/** Whose the resources of opportunities are, on the day to which each was measured. */
async function ownersOf(seen: ChargesSeen, rows: readonly { opportunity: StoredOpportunity }[]): Promise<Map<string, Owner>> {
  const days = [...new Set(rows.map(({ opportunity }) => opportunity.body.evidence.to))]
  const asked = days.map(async day => {
    const own = rows.filter(({ opportunity }) => opportunity.body.evidence.to === day)
    const resources = own.map(({ opportunity: { body } }) => ({ ...body, id: body.resourceId, name: body.resourceName }))
    const { result } = await seen.ask('whose', {
      day,
      resources: resources.map(({ id, name, provider, region, subAccountName, tags }) => ({
        id,
        name,
        provider,
        region,
        subAccountName,
        tags,
      })),
    })
    const byResource = new Map(Object.entries(result))
    return own.map(({ opportunity }) => [opportunity.id, byResource.get(opportunity.body.resourceId) ?? null] as const)
  })
  return new Map((await Promise.all(asked)).flat())
}

const DAYS_BEFORE = 7

/** Promised beside seen, from the charges that are loaded. */
async function ledgerLine(
  { seen: charges, people }: Needed,
  { opportunity, action }: { opportunity: StoredOpportunity; action: StoredAction },
): Promise<LedgerLine> {
  const { body } = opportunity
  const doneAt = action.doneAt!.includes('T') ? action.doneAt! : `${action.doneAt!.replace(' ', 'T').slice(0, 19)}Z`
  const day = doneAt.slice(0, 10)
  const line = {
    id: opportunity.id,
    resourceName: body.resourceName,
    doneAt,
    approvedBy: people.nameOf(action.approvedBy),
    currency: action.currency,
    promisedMonthly: decimalText(new Decimal(action.promisedMonthly)),
  }
  const last = await reportedTo(charges, { ...ALWAYS, keep: { ResourceId: [body.resourceId] } })
  if (!last || last < day) return { ...line, seenTo: null, promised: null, seen: null, workings: null }
  const billed = async (start: string, end: string) => {
    const { result } = await charges.ask('group', {
      splitBy: [],
      grain: null,
      start,
      end,
      keep: { ResourceId: [body.resourceId] },
      leaveOut: {},
      measures: ['billedCost', 'pricingQuantity'],
    })
    const own = result.find(group => group.currency === action.currency)
    return { cost: new Decimal(scaledText(own?.amounts[0] ?? 0n)), hours: new Decimal(scaledText(own?.amounts[1] ?? 0n)) }
  }
  const [before, since] = await Promise.all([billed(addDays(day, -DAYS_BEFORE), day), billed(day, addDays(last, 1))])
  const hoursSince = daysBetween(day, addDays(last, 1)) * 24
  const seen = realisedSaving({ costBefore: before.cost, hoursBefore: before.hours, costSince: since.cost, hoursSince })
  const hoursGone = hoursSince - Number(doneAt.slice(11, 13))
  return {
    ...line,
    seenTo: last,
    promised: decimalText(promisedSince(new Decimal(action.promisedMonthly), hoursGone).round(10)),
    seen: seen && decimalText(seen.round(10)),
    workings: {
      costBefore: decimalText(before.cost),
      hoursBefore: decimalText(before.hours),
      costSince: decimalText(since.cost),
      hoursSince,
    },
  }
}

async function known({ database }: Pick<Work, 'database'>, id: string) {
  const row = await findOpportunity(database.db, id)
  if (!row) throw unknownOpportunity(id)
  return row
}

/** @throws Problem where an opportunity is not for whoever asks. */
export async function mustBeTheirs({ database, seen, asker }: Needed, id: string): Promise<void> {
  const row = await known({ database }, id)
  if (asker.bound && !(await ownersOf(seen, [row])).get(id)) throw unknownOpportunity(id)
}

const unknownOpportunity = (id: string) => notFound('opportunity', `Nothing that can be saved has the id «${id}».`)

/** What approving would do; does nothing. */
export async function previewAction(work: Pick<Work, 'database'>, id: string): Promise<ActionPreview> {
  const { opportunity } = await known(work, id)
  const { body } = opportunity
  const { action, needs } = detectorOf(body.detector)
  const connector = await connectorThatCan(work.database.db, ['inventory', 'actions'], body.provider)
  const stillThere = await withConnector(async () =>
    (await capabilityOf(connector, 'inventory').resources(needs.inventory)).some(({ id }) => id === body.resourceId),
  )
  return { id, stillThere, steps: action.steps(body), undo: action.undo }
}
