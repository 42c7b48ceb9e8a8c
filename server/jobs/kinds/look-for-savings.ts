import { z } from 'zod'
import { findConnector } from '../../connectors/connect'
import { lookForSavings as look } from '../../use-cases/savings'
import type { JobKind } from './kind'

/** Looks through a connection for what can be saved. */
export const lookForSavings: JobKind<{ connection: string }> = {
  kind: 'look-for-savings',
  does: 'Look for savings',
  argument: z.object({ connection: z.string() }),
  stops: false,
  describe: async ({ connection }) => ({ about: connection, page: '/savings' }),
  async run({ connection }, { services, who }) {
    const { database, cube } = services
    const from = { db: database.db, charges: cube.within(null), refreshMeasured: () => cube.refreshMeasured() }
    const found = await look(from, await findConnector(database.db, connection), who)
    return { said: found === 1 ? '1 opportunity' : `${found} opportunities`, result: undefined }
  },
}

export const lookJob = (connection: string) => `look-for-savings ${connection}`
