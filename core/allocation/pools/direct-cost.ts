import { z } from 'zod'
import { poolBase } from './pool-base'
import type { PoolMethod } from './pool-method'

const schema = z.object({ ...poolBase, method: z.literal('direct cost') })

/** Divided in proportion to what cost centres have directly, reckoned in the company's report currency. */
export const directCost: PoolMethod<'direct cost', z.infer<typeof schema>> = {
  method: 'direct cost',
  schema,
  label: () => 'in proportion to direct cost',
  needs: () => ({ basis: 'direct cost' }),
}
