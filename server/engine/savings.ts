import { firstMatch } from '../../core/allocation/match'
import { tagDimension } from '../../core/focus/star'
import { Decimal, decimalText } from '../../core/money/decimal'
import { scaledText } from '../../core/money/scaled'
import { idleGateway, LOOK_BACK_DAYS } from '../../core/opportunity/detectors/idle-gateway'
import { promisedSince, realisedSaving } from '../../core/opportunity/realised'
import { addDays, daysBetween } from '../../core/time/day'
import type { ActionPreview, LedgerLine, OpportunityView, SavingsState } from '../../shared/contracts/savings'
import { capabilityOf, connectors, connectorThatCan, withConnector } from '../connectors/connect'
import { ConnectorFailed, type Connector } from '../connectors/connector'
import { Problem, notFound } from '../http/problem'
import type { Services } from '../services'
import { currentPlan } from '../stores/organisation'
import { findRateCard } from '../stores/rate-cards'
import {
  approve,
  findOpportunity,
  keepFound,
  listOpportunities,
  noteStep,
  type StoredAction,
  type StoredOpportunity,
} from '../stores/savings'
import { reportedTo } from './delivered-days'

type Engine = Pick<Services, 'database' | 'cube'>
const ALWAYS = { start: '1970-01-01', end: '2200-01-01', leaveOut: {} }

/** Looks through a connection for what can be saved and keeps what is found. @returns how much that is. */
export async function lookForSavings({ database }: Engine, connector: Connector): Promise<number> {
  const inventory = capabilityOf(connector, 'inventory')
  const measurements = capabilityOf(connector, 'measurements')
  const today = (await connector.now()).slice(0, 10)
  const card = await findRateCard(database.db, connector.provider, today)
  if (!card)
    throw new Problem(
      409,
      'no-rate-card',
      'There is nothing to price a saving with',
      `Drop the rate card of ${connector.provider} under Sources first.`,
    )
  const measured = []
  for (const gateway of await inventory.gateways())
    measured.push({ gateway, readings: await measurements.readings(gateway.id, addDays(today, -LOOK_BACK_DAYS), today) })
  const found = idleGateway.find(measured, { card, today })
  await keepFound(database.db, found, connector.provider)
  return found.length
}

/** Everything the place shows: opportunities with owner and state, and the ledger. */
export async function savingsState(engine: Engine): Promise<SavingsState> {
  const { database, cube } = engine
  const rows = await listOpportunities(database.db)
  const saved = await currentPlan(database.db)
  const people = new Map((await database.db.query.person.findMany()).map(p => [p.id, p.name]))
  const opportunities = rows.map(({ opportunity, action }): OpportunityView => {
    const { body } = opportunity
    const values = {
      SubAccountName: body.subAccountName,
      ProviderName: body.provider,
      ...Object.fromEntries(Object.entries(body.tags).map(([key, value]) => [tagDimension(key), value])),
    }
    const target = saved ? firstMatch(saved.plan, values)?.target : undefined
    const centre = saved?.plan.centres.find(c => c.id === target)
    return {
      ...body,
      state: opportunity.state,
      foundAt: opportunity.foundAt,
      centre: centre?.name ?? saved?.plan.pools.find(p => p.id === target)?.name ?? null,
      owner: centre?.owner ? (people.get(centre.owner) ?? null) : null,
      action: action && {
        state: action.state,
        approvedBy: action.approvedBy,
        approvedAt: action.approvedAt,
        doneAt: action.doneAt,
        tries: action.tries,
        steps: action.steps,
      },
    }
  })
  const done = rows.filter((row): row is { opportunity: StoredOpportunity; action: StoredAction } => row.action?.state === 'done')
  const { revision } = await cube.ask('facts', undefined)
  const ledger = await Promise.all(done.map(row => ledgerLine(engine, row)))
  return {
    connected: (await connectors(database.db)).some(({ can }) => can.inventory && can.measurements),
    opportunities,
    ledger,
    revision,
  }
}

const DAYS_BEFORE = 7

/** Promised beside seen, from the charges that are loaded. */
async function ledgerLine(
  { cube }: Engine,
  { opportunity, action }: { opportunity: StoredOpportunity; action: StoredAction },
): Promise<LedgerLine> {
  const { body } = opportunity
  const doneAt = action.doneAt!.includes('T') ? action.doneAt! : `${action.doneAt!.replace(' ', 'T').slice(0, 19)}Z`
  const day = doneAt.slice(0, 10)
  const line = {
    id: opportunity.id,
    resourceName: body.resourceName,
    doneAt,
    approvedBy: action.approvedBy,
    currency: action.currency,
    promisedMonthly: decimalText(new Decimal(action.promisedMonthly)),
  }
  const last = await reportedTo(cube, { ...ALWAYS, keep: { ResourceId: [body.resourceId] } })
  if (!last || last < day) return { ...line, seenTo: null, promised: null, seen: null, workings: null }
  const billed = async (start: string, end: string) => {
    const { result } = await cube.ask('group', {
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

async function known({ database }: Engine, id: string) {
  const row = await findOpportunity(database.db, id)
  if (!row) throw notFound('opportunity', `Nothing that can be saved has the id «${id}».`)
  return row
}

/** What approving would do; does nothing. */
export async function previewAction(engine: Engine, id: string): Promise<ActionPreview> {
  const { opportunity } = await known(engine, id)
  const { body } = opportunity
  const connector = await connectorThatCan(engine.database.db, ['inventory', 'actions'], body.provider)
  const stillThere = await withConnector(async () =>
    (await capabilityOf(connector, 'inventory').gateways()).some(g => g.id === body.resourceId),
  )
  return {
    id,
    stillThere,
    steps: [
      `look once more that ${body.resourceName} (${body.resourceId}) is there and that nothing has passed it`,
      `delete the gateway in ${body.region}, sub account ${body.subAccountName}, at ${body.provider}`,
      'write down what the cloud answered and when',
      'compare with the bill as it arrives',
    ],
    undo: 'A deleted gateway cannot be brought back; one made anew gets another address.',
  }
}

const running = new Map<string, Promise<void>>()

/**
 * Approves and carries out, once: asked again while it runs, it waits; asked again when done, it says so. A failure leaves all as it was.
 */
export function carryOut(engine: Engine, id: string, who: string): Promise<void> {
  const now = running.get(id)
  if (now) return now
  const mine = act(engine, id, who).finally(() => running.delete(id))
  running.set(id, mine)
  return mine
}

async function act(engine: Engine, id: string, who: string): Promise<void> {
  const { db } = engine.database
  const { opportunity } = await known(engine, id)
  const connector = await connectorThatCan(db, ['inventory', 'measurements', 'actions'], opportunity.body.provider)
  const approved = await approve(db, opportunity, who)
  if (approved.state === 'done') return
  const { body } = opportunity
  const step = (what: string, outcome: string) => ({ at: new Date().toISOString(), who, what, outcome })
  const tries = approved.tries + 1
  let sent = false
  const what = `delete ${body.resourceName}, try ${tries}`
  await withConnector(async () => {
    try {
      // after an unanswered try the gateway may be gone already by our own hand: then only the key's reply counts
      if (approved.tries === 0) await checkStillIdle(connector, body.resourceId)
      await noteStep(db, approved, 'sent', step(what, 'sent'), { tries })
      sent = true
      const { deletedAt } = await capabilityOf(connector, 'actions').deleteGateway(body.resourceId, approved.requestKey)
      await noteStep(db, approved, 'done', step(what, `deleted at ${deletedAt}`), { doneAt: deletedAt })
    } catch (error) {
      const reason =
        error instanceof ConnectorFailed || error instanceof Problem ? error.message : `a fault in Rain Barrel: ${(error as Error).message}`
      const unsure = sent && error instanceof ConnectorFailed && !error.sure
      await noteStep(
        db,
        approved,
        'failed',
        step(what, unsure ? `${reason}; whether it was deleted is not known, trying again will tell` : reason),
        { tries: sent ? tries : approved.tries },
      )
      throw error
    }
  })
}

async function checkStillIdle(connector: Connector, id: string): Promise<void> {
  const today = (await connector.now()).slice(0, 10)
  const there = (await capabilityOf(connector, 'inventory').gateways()).some(g => g.id === id)
  if (!there)
    throw new Problem(409, 'gone', 'The gateway is not there any more', 'Somebody else has deleted it. Look again for what can be saved.')
  const passed = (await capabilityOf(connector, 'measurements').readings(id, addDays(today, -7), today)).reduce(
    (sum, { gb }) => sum + gb,
    0,
  )
  if (passed > 0.1)
    throw new Problem(
      409,
      'in-use',
      'The gateway is in use again',
      `${passed.toFixed(1)} GB passed it in the last seven days. It was left alone.`,
    )
}
