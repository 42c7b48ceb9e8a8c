import type { OrderDefinition } from '../../core/standing-order/definition'
import { nextDue } from '../../core/time/rhythm'
import type { Db } from '../db/database'
import { changeJob, jobsOf, putJob, removeJob } from '../stores/jobs'
import { toldSoFar } from '../stores/observed'
import {
  addOrder,
  changeOrder,
  orderJob,
  ordersOnEvents,
  removeOrder,
  setOrder,
  STANDING_ORDER,
  type StoredOrder,
} from '../stores/standing-orders'
import { mustBeOrder, mustBeTried, mustHold } from '../use-cases/standing-orders/checked-order'
import type { Work } from '../use-cases/work'
import { happened } from './kinds/happened'

/** How often connections are asked for events: while an order waits for them, and else. */
const AT_ONCE = { count: 1, unit: 'minute' } as const
const DAILY = { count: 1, unit: 'day' } as const

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

/** The job of an order: comes by itself where it is on and something starts it. */
async function putOrderJob(db: Db, { id, definition: { starts }, isOn, who }: StoredOrder): Promise<void> {
  const every = !isOn || starts.by === 'person' ? null : starts.by === 'event' ? DAILY : starts.every
  const now = new Date().toISOString()
  const due = every && nextDue(every, now, now)
  await putJob(db, { kind: STANDING_ORDER, name: orderJob(id), argument: { order: id }, every, due, tell: who })
  await putEventJobs(db)
}

/** Asks connections for events as often as orders need them; where a person has set them to something else, that stays. */
export async function putEventJobs(db: Db): Promise<void> {
  const isWanted = (await ordersOnEvents(db)).length > 0
  const [from, to] = isWanted ? [DAILY, AT_ONCE] : [AT_ONCE, DAILY]
  for (const { id, every } of (await jobsOf(db, happened.kind)).values())
    if (every?.count === from.count && every.unit === from.unit) await changeJob(db, id, { every: to })
}
