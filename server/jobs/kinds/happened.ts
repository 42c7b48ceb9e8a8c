import { z } from 'zod'
import { manyOf } from '../../../core/text/many-of'
import { addDays } from '../../../core/time/day'
import { capabilityOf, findConnector } from '../../connectors/connect'
import { keepEvents, lastEventDay } from '../../stores/observed'
import type { JobKind } from './kind'

/** So far back events are asked for the first time. */
const DAYS_BACK = 400
/** A service may tell late of what happened. */
const DAYS_AGAIN = 2

/** Asks a connection what has happened to its resources since the last time: who made and deleted what. */
export const happened: JobKind<{ connection: string }> = {
  kind: 'events',
  does: 'Fetch what has happened',
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
    await keepEvents(db, connection, found)
    return { said: `${manyOf(found.length, 'event')} since ${since}`, result: undefined }
  },
}

export const happenedJob = (connection: string) => `events ${connection}`
