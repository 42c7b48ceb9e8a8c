import { z } from 'zod'
import { poolBase } from './pool-base'
import type { PoolMethod } from './pool-method'

const schema = z.object({
  ...poolBase,
  method: z.literal('lookup'),
  lookup: z.string().min(1, 'choose the lookup that the pool is divided by'),
  field: z.string().min(1, 'choose a field of the lookup'),
})

/** Divided by numbers that someone brought, such as people or desks: a lookup by cost centre. */
export const byLookup: PoolMethod<'lookup', z.infer<typeof schema>> = {
  method: 'lookup',
  schema,
  title: 'by numbers of a lookup',
  begin: (base, [first]) => ({ ...base, method: 'lookup', lookup: first?.name ?? '', field: first?.fields[0] ?? '' }),
  label: ({ lookup, field }) => `in proportion to ${field} in ${lookup}`,
  needs: ({ lookup, field }) => ({ basis: 'lookup', lookup, field }),
}
