import { z } from 'zod'
import { parseDecimal } from '../../money/decimal'
import { namedRecord } from '../../text/named-record'
import { poolBase } from './pool-base'
import type { PoolMethod } from './pool-method'

const share = z
  .string()
  .refine(text => parseDecimal(text)?.gt(0) ?? false, 'a share is a number above zero, such as 2.5')
  .refine(text => parseDecimal(text)?.lte(1e12) ?? true, 'a share is at most 1,000,000,000,000')
const schema = z.object({
  ...poolBase,
  method: z.literal('shares'),
  /** By cost centre or pool; what they add up to does not matter. */
  shares: namedRecord(share),
})

/** Divided by shares that are written down; what goes to another pool is divided with it. */
export const shares: PoolMethod<'shares', z.infer<typeof schema>> = {
  method: 'shares',
  schema,
  title: 'by fixed shares',
  begin: base => ({ ...base, method: 'shares', shares: {} }),
  label: () => 'by fixed shares',
  needs: pool => ({ basis: 'weights', weights: pool.shares }),
}
