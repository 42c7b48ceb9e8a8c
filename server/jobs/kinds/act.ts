import { z } from 'zod'
import { withConnector } from '../../connectors/connect'
import { carryOut, findOut } from '../../use-cases/act'
import { findOpportunity } from '../../stores/savings'
import type { Tools } from '../../use-cases/work'
import type { Db } from '../../db/database'
import type { JobKind } from './kind'

/** Acts on an approved opportunity. What a process is killed over is found out; nothing is sent before a person asks again. */
export const act: JobKind<{ opportunity: string }> = {
  kind: 'act',
  does: 'Act on a saving',
  argument: z.object({ opportunity: z.string() }),
  stops: false,
  once: true,
  describe: ({ opportunity }, db) => aboutOpportunity(db, opportunity),
  async run({ opportunity }, { services, who, about }) {
    await withConnector(() => carryOut(factsFrom(services), opportunity, who, about))
    return { said: 'done', result: undefined }
  },
  async findOut({ opportunity }, { services, who }) {
    await findOut(factsFrom(services), opportunity, who)
    return 'found out'
  },
}

/** What proves a saving is looked at whole, whoever approves it. */
export const factsFrom = ({ database: { db }, cube }: Tools) => ({ db, charges: cube.within(null) })

/** What a job is about that does something about an opportunity. */
export async function aboutOpportunity(db: Db, id: string): Promise<{ about: string; page: string }> {
  const row = await findOpportunity(db, id)
  return { about: row?.opportunity.body.resourceName ?? id, page: '/savings' }
}
