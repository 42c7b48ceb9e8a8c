import { z } from 'zod'
import { isDay } from '../../core/time/day'

/** Decimal text with every digit. */
export const amountText = z.string().regex(/^-?\d+(\.\d+)?$/)
export const day = z.string().refine(isDay, 'write a day of the calendar like 2026-11-23')
export const month = z.string().regex(/^\d{4}-(0[1-9]|1[0-2])$/, 'write a month like 2026-11')
export const currencyAmount = z.object({ currency: z.string(), amount: amountText })
export type CurrencyAmount = z.infer<typeof currencyAmount>

/** RFC 9457 problem details, with a code for programs and the fields that were wrong. */
export const problemDetails = z.object({
  type: z.string(),
  title: z.string(),
  status: z.number(),
  detail: z.string(),
  code: z.string(),
  errors: z.array(z.object({ field: z.string(), reason: z.string() })).optional(),
})
export type ProblemDetails = z.infer<typeof problemDetails>
