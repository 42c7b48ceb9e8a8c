import { z } from 'zod'
import { poolBase } from './pool-base'
import type { PoolMethod } from './pool-method'

const schema = z.object({ ...poolBase, method: z.literal('even') })

/** Divided in parts of one size. */
export const even: PoolMethod<'even', z.infer<typeof schema>> = {
  method: 'even',
  schema,
  title: 'evenly',
  begin: base => ({ ...base, method: 'even' }),
  label: () => 'evenly',
  needs: () => ({ basis: 'even' }),
}
