import { z } from 'zod'
import { poolBase } from './pool-base'
import type { PoolMethod } from './pool-method'

const schema = z.object({ ...poolBase, method: z.literal('machine hours'), service: z.string().min(1) })

/** Divided by the hours that each cost centre's machines of one service ran. */
export const machineHours: PoolMethod<'machine hours', z.infer<typeof schema>> = {
  method: 'machine hours',
  schema,
  title: 'in proportion to machine hours',
  begin: base => ({ ...base, method: 'machine hours', service: 'Servers' }),
  label: ({ service }) => `by hours of ${service}`,
  needs: ({ service }) => ({
    basis: 'quantity',
    measure: 'pricingQuantity',
    unit: 'Hours',
    conditions: [{ dimension: 'ServiceName', values: [service] }],
  }),
}
