import { detectors } from '../../../core/opportunity/detectors'
import type { OrderDefinition } from '../../../core/standing-order/definition'
import { written, type OrderException } from '../../../core/standing-order/verdict'
import type { Db } from '../../db/database'
import { conflict, notFound, Problem } from '../../problems/problem'
import { personEntries } from '../../stores/people'
import { findOrder, findRun, keepException, listOrders, listRuns, type StoredOrder } from '../../stores/standing-orders'
import type { Work } from '../work'

/** @throws Problem where there is none of that id. */
export async function mustBeOrder(db: Db, id: string): Promise<StoredOrder> {
  const order = /^[0-9a-f-]{36}$/i.test(id) ? await findOrder(db, id) : null
  if (!order) throw notFound('standing order', `Nothing is kept under «${id}».`)
  return order
}

/** What is named in an order has to be there, and its name has to be its own. @throws Problem else. */
export async function mustHold(db: Db, { name, finds, does }: OrderDefinition, id: string | null): Promise<void> {
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

/** @throws Problem where what an order is now was never tried. */
export function mustBeTried({ definition, triedRevision, revision }: StoredOrder): void {
  if (triedRevision !== revision)
    throw conflict(
      'A dry run comes first',
      `«${definition.name}» has not been tried as it is now: start a dry run, and look at what it would do.`,
    )
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
