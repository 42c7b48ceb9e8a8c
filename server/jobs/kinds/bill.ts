import { z } from 'zod'
import { findConnector } from '../../connectors/connect'
import { fetchBill } from '../../imports/fetch-bill'
import type { JobKind } from './kind'

/** Asks a connection for its bill to date and loads it. Taken up after a kill, it finds what it has fetched. */
export const bill: JobKind<{ connection: string }, { now: string; importIds: string[] }> = {
  kind: 'bill',
  does: 'Fetch the bill to date',
  argument: z.object({ connection: z.string() }),
  stops: false,
  describe: async ({ connection }) => ({ about: connection, page: '/sources/connections' }),
  async run({ connection }, { services, key, who }) {
    const connector = await findConnector(services.database.db, connection)
    const now = await connector.now()
    const { result: facts } = await services.cube.within(null).ask('facts', undefined)
    const lastDay = facts.sources.find(({ source }) => source === connector.provider)?.lastDay ?? null
    const importIds = await fetchBill(services.importer.arrivals, connector, { now, lastDay, who, key })
    return {
      said: `asked for the bill to ${now.slice(0, 10)}: ${importIds.length === 1 ? 'load' : 'loads'} ${importIds.join(', ')}`,
      result: { now, importIds },
    }
  },
}

/** The job by which a person asks a connection for its bill. */
export const billJob = (connection: string) => `bill ${connection}`
