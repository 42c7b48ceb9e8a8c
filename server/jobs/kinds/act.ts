import { z } from 'zod'
import { withConnector } from '../../connectors/connect'
import { carryOut, findOut } from '../../use-cases/act'
import { findOpportunity } from '../../stores/savings'
import type { Tools } from '../../use-cases/work'
import type { JobKind } from './kind'

/** Acts on an approved opportunity. What a process is killed over is found out; nothing is sent before a person asks again. */
export const act: JobKind<{ opportunity: string }> = {
  kind: 'act',
  does: 'Act on a saving',
  argument: z.object({ opportunity: z.string() }),
  stops: false,
  once: true,
  async describe({ opportunity }, db) {
    const row = await findOpportunity(db, opportunity)
    return { about: row?.opportunity.body.resourceName ?? opportunity, page: '/savings' }
  },
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
