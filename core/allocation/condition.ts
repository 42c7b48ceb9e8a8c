import { z } from 'zod'
import { parseScaled } from '../money/scaled'
import { isRuleDimension } from '../spend/dimensions'
import { costMeasures } from '../spend/question'

const dimension = z
  .string()
  .refine(
    isRuleDimension,
    'rules look at a column of the bill, such as SubAccountName, at a tag, written Tags/KEY, or at Lookup/NAME/FIELD',
  )
const amount = z.string().refine(text => parseScaled(text)?.rounded === false, 'write an amount such as -12.50, with at most 15 decimals')

const byValue = z.object({
  dimension,
  /** Any of these; null stands for "has none". */
  values: z.array(z.string().nullable()).min(1, 'name at least one value'),
})
const byPattern = z.object({
  dimension,
  /** `*` stands for any text; capitals and small letters are the same. */
  pattern: z.string().min(1, 'write a pattern such as crew-*').max(300),
})
const byAmount = z
  .object({
    /** The amount of the single charge line. */
    measure: z.enum(costMeasures),
    atLeast: amount.optional(),
    below: amount.optional(),
  })
  .refine(({ atLeast, below }) => atLeast !== undefined || below !== undefined, 'say what the amount is at least, or below what it is')

export type ValueCondition = z.infer<typeof byValue>
export type PatternCondition = z.infer<typeof byPattern>
export type AmountCondition = z.infer<typeof byAmount>
export const condition = z.union([byValue, byPattern, byAmount])
export type Condition = z.infer<typeof condition>
