import { z } from 'zod'

/** Among which cost centres a pool is divided. */
const among = z.discriminatedUnion('of', [
  /** All that have none below them. */
  z.object({ of: z.literal('everyone') }),
  /** A cost centre and all below it. */
  z.object({ of: z.literal('subtree'), centre: z.string().min(1) }),
  z.object({ of: z.literal('list'), centres: z.array(z.string().min(1)).min(1, 'name at least one cost centre') }),
  /** Those that have cost of their own in the month. */
  z.object({ of: z.literal('with cost') }),
])
export type Among = z.infer<typeof among>

/** What every pool has, however it is divided. */
export const poolBase = {
  id: z.string().min(1),
  name: z.string().min(1, 'give the pool a name'),
  /** Who answers for it. */
  owner: z.string().nullable().optional(),
  /** Nothing for whoever the way to divide finds. */
  among: among.optional(),
}
