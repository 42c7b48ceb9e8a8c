import { z } from 'zod'
import { withConnector } from '../../connectors/connect'
import { undoAction } from '../../use-cases/undo'
import { aboutOpportunity } from './act'
import type { JobKind } from './kind'

/** Undoes what was done about a saving. What a process ends over is found out when somebody asks again. */
export const undo: JobKind<{ opportunity: string }> = {
  kind: 'undo',
  does: 'Undo what was done about a saving',
  argument: z.object({ opportunity: z.string() }),
  stops: false,
  once: true,
  describe: ({ opportunity }, db) => aboutOpportunity(db, opportunity),
  async run({ opportunity }, { services, who, about }) {
    await withConnector(() => undoAction(services.database.db, opportunity, who, about))
    return { said: 'undone', result: undefined }
  },
  findOut: async () => 'The process ended over it: ask to undo it again; what became of it is found out first.',
}
