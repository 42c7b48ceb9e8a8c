import { detectors } from '../../../core/opportunity/detectors'
import type { OrderDefinition } from '../../../core/standing-order/definition'
import { written, type OrderException } from '../../../core/standing-order/verdict'
import { nextDue } from '../../../core/time/rhythm'
import { happened } from '../../jobs/kinds/happened'
import { orderJob, standingOrder } from '../../jobs/kinds/standing-order'
import type { Db } from '../../db/database'
import { conflict, notFound, Problem } from '../../problems/problem'
import { changeJob, jobsOf, putJob, removeJob } from '../../stores/jobs'
import { toldSoFar } from '../../stores/observed'
import { personEntries } from '../../stores/people'
import {
  addOrder,
  changeOrder,
  findOrder,
  findRun,
  keepException,
  listOrders,
  listRuns,
  ordersOnEvents,
  removeOrder,
  setOrder,
  type StoredOrder,
} from '../../stores/standing-orders'
import type { Work } from '../work'

/** How often connections are asked for events: while an order waits for them, and else. */
const AT_ONCE = { count: 1, unit: 'minute' } as const
const DAILY = { count: 1, unit: 'day' } as const

/** @throws Problem where there is none of that id. */
export async function mustBeOrder(db: Db, id: string): Promise<StoredOrder> {
  const order = /^[0-9a-f-]{36}$/i.test(id) ? await findOrder(db, id) : null
  if (!order) throw notFound('standing order', `Nothing is kept under «${id}».`)
  return order
}

/** What is named in an order has to be there, and its name has to be its own. @throws Problem else. */
async function mustHold(db: Db, { name, finds, does }: OrderDefinition, id: string | null): Promise<void> {
  const taken = (await listOrders(db)).some(one => one.id !== id && one.definition.name.toLowerCase() === name.toLowerCase())
  if (taken) throw conflict('There is such an order already', `Another one is called «${name}»: give this one a name of its own.`)
  const refuse = (field: string, reason: string) =>
    new Problem('invalid', 'invalid', 'The order does not hold', reason, [{ field, reason }])
  if (finds.what === 'savings') {
    const unknown = finds.detectors.find(one => !detectors.some(({ detector }) => detector === one))
    if (unknown !== undefined)
      throw refuse('finds.detectors', `Nothing finds «${unknown}»: use ${detectors.map(({ detector }) => detector).join(', ')}.`)
  }
  if (does.deed === 'notify' && does.otherwise !== null && !(await personEntries(db)).some(({ id: person }) => person === does.otherwise))
    throw refuse('does.otherwise', `Nobody has the id «${does.otherwise}»: choose a person of the register.`)
}

/** Keeps a new order: off, until it was tried in a dry run. */
export async function makeOrder(
  { database: { db }, asker }: Pick<Work, 'database' | 'asker'>,
  definition: OrderDefinition,
): Promise<StoredOrder> {
  await mustHold(db, definition, null)
  const order = await addOrder(db, definition, await toldSoFar(db), asker.id)
  await putOrderJob(db, order)
  return order
}

/** Changes an order. What it finds, does or is braked by makes it another: it is off until that was tried too. */
export async function editOrder(
  { database: { db }, asker }: Pick<Work, 'database' | 'asker'>,
  id: string,
  definition: OrderDefinition,
): Promise<void> {
  const { definition: before } = await mustBeOrder(db, id)
  await mustHold(db, definition, id)
  const ofRun = ({ name: _, starts: __, ...rest }: OrderDefinition) => JSON.stringify(rest)
  const order = await changeOrder(db, id, definition, ofRun(before) !== ofRun(definition), asker.id)
  if (order) await putOrderJob(db, order)
}

/** Takes an order away with its runs and exceptions. */
export async function dropOrder(db: Db, id: string): Promise<void> {
  await mustBeOrder(db, id)
  await removeJob(db, orderJob(id))
  await removeOrder(db, id)
  await putEventJobs(db)
}

/** Switches an order on, from when on it starts by itself, or off. @throws Problem where what it is now was never tried. */
export async function switchOrder(db: Db, id: string, isOn: boolean): Promise<void> {
  const order = await mustBeOrder(db, id)
  if (isOn) mustBeTried(order)
  // what was made while it was off is found by its round
  await setOrder(db, id, { isOn, ...(isOn && !order.isOn && { toldTo: await toldSoFar(db) }) })
  await putOrderJob(db, { ...order, isOn })
}

/** @throws Problem where what an order is now was never tried. */
export function mustBeTried({ definition, triedRevision, revision }: StoredOrder): void {
  if (triedRevision !== revision)
    throw conflict(
      'A dry run comes first',
      `«${definition.name}» has not been tried as it is now: start a dry run, and look at what it would do.`,
    )
}

/** The job of an order: comes by itself where it is on and something starts it. */
async function putOrderJob(db: Db, { id, definition: { starts }, isOn, who }: StoredOrder): Promise<void> {
  const every = !isOn || starts.by === 'person' ? null : starts.by === 'event' ? DAILY : starts.every
  const now = new Date().toISOString()
  const due = every && nextDue(every, now, now)
  await putJob(db, { kind: standingOrder.kind, name: orderJob(id), argument: { order: id }, every, due, tell: who })
  await putEventJobs(db)
}

/** Asks connections for events as often as orders need them; where a person has set them to something else, that stays. */
async function putEventJobs(db: Db): Promise<void> {
  const isWanted = (await ordersOnEvents(db)).length > 0
  const [from, to] = isWanted ? [DAILY, AT_ONCE] : [AT_ONCE, DAILY]
  for (const { id, every } of (await jobsOf(db, happened.kind)).values())
    if (every?.count === from.count && every.unit === from.unit) await changeJob(db, id, { every: to })
}

/** Excepts a resource from an order. */
export async function exceptFrom(
  { database: { db }, asker }: Pick<Work, 'database' | 'asker'>,
  id: string,
  exception: OrderException,
): Promise<void> {
  await mustBeOrder(db, id)
  await keepException(db, id, exception, asker.id)
}

/** What a person has chosen for what the newest run could not tell for certain. @throws Problem where it asks nothing of the kind. */
export async function chosenTag({ database: { db } }: Pick<Work, 'database'>, id: string, resourceId: string, person: string) {
  const order = await mustBeOrder(db, id)
  mustBeTried(order)
  const { does } = order.definition
  const newest = (await listRuns(db, 1)).find(run => run.order === id && run.revision === order.revision)
  const items = newest ? ((await findRun(db, newest.id))?.items ?? []) : []
  const item = items.find(one => one.found.resourceId === resourceId && one.key !== null)
  if (!item || does.deed !== 'tag owner')
    throw conflict('Nothing is asked about that', 'The newest run of the order does not ask who made it: run it again.')
  const chosen = (await personEntries(db)).find(one => one.id === person)
  const value = chosen && written(chosen, does.form)
  if (!value)
    throw conflict(
      'That person cannot be chosen',
      chosen ? `${chosen.name} has no ${does.form} to write.` : `Nobody has the id «${person}».`,
    )
  const { name, provider } = item.found
  return { order: id, resourceId, name, provider, key: does.key, value }
}
