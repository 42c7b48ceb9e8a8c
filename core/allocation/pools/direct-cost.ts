import { z } from 'zod'
import { poolBase } from './pool-base'
import type { PoolMethod } from './pool-method'

const schema = z.object({
  ...poolBase,
  method: z.literal('direct cost'),
  /** Which services' cost counts; all where nothing is said. */
  services: z.array(z.string().min(1)).min(1, 'name at least one service').optional(),
})

/** Divided in proportion to what cost centres have directly, reckoned in the company's report currency. */
export const directCost: PoolMethod<'direct cost', z.infer<typeof schema>> = {
  method: 'direct cost',
  schema,
  title: 'in proportion to direct cost',
  begin: base => ({ ...base, method: 'direct cost' }),
  label: ({ services }) => `in proportion to direct cost${services ? ` of ${services.join(', ')}` : ''}`,
  needs: ({ services }) => ({ basis: 'direct cost', services: services ?? null }),
}
