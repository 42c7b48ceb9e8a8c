import { z } from 'zod'
import { poolBase } from './pool-base'
import type { PoolMethod } from './pool-method'

const schema = z.object({
  ...poolBase,
  method: z.literal('measure'),
  measure: z.string().min(1, 'choose the business measure that the pool is divided by'),
})

/** Divided by what a business measure counts for each cost centre in the month, such as bookings. */
export const byMeasure: PoolMethod<'measure', z.infer<typeof schema>> = {
  method: 'measure',
  schema,
  title: 'by a business measure',
  begin: (base, _lookups, [first]) => ({ ...base, method: 'measure', measure: first ?? '' }),
  label: ({ measure }) => `in proportion to ${measure}`,
  needs: ({ measure }) => ({ basis: 'measure', measure }),
}
