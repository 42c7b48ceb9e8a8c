import { z } from 'zod'
import { findConnector } from '../../connectors/connect'
import { fetchBill } from '../../imports/fetch-bill'
import type { JobKind } from './kind'

/** Asks a connection for its bill to date and loads it. Taken up after a kill, it finds what it has fetched. */
export const bill: JobKind<{ connection: string }, { now: string; importId: string }> = {
  kind: 'bill',
  does: 'Fetch the bill to date',
  argument: z.object({ connection: z.string() }),
  stops: false,
  describe: async ({ connection }) => ({ about: connection, page: '/sources/connections' }),
  async run({ connection }, { services, key, who }) {
    const connector = await findConnector(services.database.db, connection)
    const now = await connector.now()
    const importId = await fetchBill(services.importer.arrivals, connector, now, who, key)
    return { said: `asked for the bill to ${now.slice(0, 10)}: load ${importId}`, result: { now, importId } }
  },
}

/** The job by which a person asks a connection for its bill. */
export const billJob = (connection: string) => `bill ${connection}`
