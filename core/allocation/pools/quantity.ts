import { z } from 'zod'
import { condition } from '../condition'
import { poolBase } from './pool-base'
import type { PoolMethod } from './pool-method'

const schema = z.object({
  ...poolBase,
  method: z.literal('quantity'),
  measure: z.enum(['pricingQuantity', 'consumedQuantity']),
  /** The unit it is measured in, as the bill has it: different units do not add. */
  unit: z.string().min(1, 'say in which unit the quantity is measured, such as Hours'),
  /** Which charges are measured; all of them where there is no condition. */
  conditions: z.array(condition).default([]),
})

/** Divided in proportion to a quantity that the bill measures, such as the hours that each cost centre's machines ran. */
export const quantity: PoolMethod<'quantity', z.infer<typeof schema>> = {
  method: 'quantity',
  schema,
  title: 'by a quantity on the bill',
  begin: base => ({ ...base, method: 'quantity', measure: 'consumedQuantity', unit: 'Hours', conditions: [] }),
  label: ({ unit }) => `in proportion to ${unit} on the bill`,
  needs: ({ measure, unit, conditions }) => ({ basis: 'quantity', measure, unit, conditions }),
}
