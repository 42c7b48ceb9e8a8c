import { dayText } from '../../../shared/words/days'
import { z } from 'zod'
import { manyOf } from '../../../core/text/many-of'
import { addDays } from '../../../core/time/day'
import { capabilityOf, findConnector } from '../../connectors/connect'
import { keepEvents, lastEventDay, toldSoFar } from '../../stores/observed'
import { dueNow } from '../../stores/jobs'
import { orderJob, ordersOnEvents } from '../../stores/standing-orders'
import type { Db } from '../../db/database'
import type { JobKind } from './kind'

/** So far back events are asked for the first time. */
const DAYS_BACK = 400
/** A service may tell late of what happened. */
const DAYS_AGAIN = 2

/** Asks a connection what has happened to its resources since the last time: who made and deleted what. */
export const happened: JobKind<{ connection: string }> = {
  kind: 'events',
  does: 'Fetch events',
  argument: z.object({ connection: z.string() }),
  stops: false,
  describe: async ({ connection }) => ({ about: connection, page: '/sources/connections' }),
  async run({ connection }, { services }) {
    const { db } = services.database
    const connector = await findConnector(db, connection)
    const now = (await connector.now()).slice(0, 10)
    const last = await lastEventDay(db, connection)
    // an event that is told for a day to come puts nothing off
    const since = last ? addDays(last < now ? last : now, -DAYS_AGAIN) : addDays(now, -DAYS_BACK)
    const found = await capabilityOf(connector, 'events').since(since)
    const fresh = await keepEvents(db, connection, found)
    // kept first: whatever becomes of this process, orders find what they have not dealt with
    await wakeOrders(db)
    return { said: `${manyOf(fresh, 'new event')} since ${dayText(since)}`, result: undefined }
  },
}

export const happenedJob = (connection: string) => `events ${connection}`

/** Lets the orders come at once that events start, where something was told that they have not dealt with. */
async function wakeOrders(db: Db): Promise<void> {
  const told = await toldSoFar(db)
  for (const { id, toldTo } of await ordersOnEvents(db)) if (toldTo < told) await dueNow(db, orderJob(id))
}
