import { z } from 'zod'
import { eq } from 'drizzle-orm'
import { load as loadTable } from '../../db/schema'
import type { JobKind } from './kind'

/** Reads a delivery that has arrived and makes it count. */
export const load: JobKind<{ load: number }> = {
  kind: 'load',
  does: 'Load a delivery',
  argument: z.object({ load: z.number().int() }),
  stops: true,
  queues: true,
  once: true,
  async describe({ load }, db) {
    const [row] = await db.select({ source: loadTable.source }).from(loadTable).where(eq(loadTable.id, load))
    return { about: row ? row.source : `load ${load}`, page: '/sources' }
  },
  run: async ({ load }, run) => ({ said: await run.services.importer.carryOut(load, run), result: undefined }),
  givenUp: ({ load }, { importer }, why) => importer.giveUp(load, why),
}
