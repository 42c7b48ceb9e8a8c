import { z } from 'zod'
import { amountText, currencyAmount, day } from './common'

export const costMeasure = z.enum(['billedCost', 'effectiveCost'])
export const grain = z.enum(['day', 'month'])
const narrowing = z.record(z.string(), z.array(z.string().nullable()))

export const spendQuestion = z.object({
  measure: costMeasure,
  splitBy: z.array(z.string()).max(4).refine(list => new Set(list).size === list.length, 'name each dimension once'),
  grain: grain.nullable(),
  start: day,
  end: day,
  keep: narrowing.default({}),
  leaveOut: narrowing.default({}),
  limit: z.number().int().positive().optional(),
}).refine(question => question.start < question.end, { path: ['end'], message: 'must be after start; the end is exclusive' })
export type SpendQuestion = z.infer<typeof spendQuestion>

export const spendAnswer = z.object({
  totals: z.array(currencyAmount),
  rows: z.array(z.object({ values: z.record(z.string(), z.string().nullable()), start: day.nullable(), currency: z.string(), amount: amountText })),
  rest: z.object({ count: z.number(), amounts: z.array(currencyAmount) }).nullable(),
  revision: z.number(),
})
export type SpendAnswer = z.infer<typeof spendAnswer>

/** Quantity × unit price, as the charges have it. */
export const pricePart = z.object({
  skuId: z.string().nullable(), skuPriceId: z.string().nullable(), chargeCategory: z.string().nullable(), description: z.string().nullable(), pricingUnit: z.string().nullable(),
  unitPrice: amountText.nullable(), quantity: amountText, currency: z.string(), amount: amountText, charges: z.number(), firstDay: day, lastDay: day,
})
/** The largest parts, and what all others come to. */
export const priceParts = z.object({ parts: z.array(pricePart), rest: z.object({ count: z.number(), amounts: z.array(currencyAmount) }).nullable(), revision: z.number() })
export type PriceParts = z.infer<typeof priceParts>

export const dimensionList = z.object({
  columns: z.array(z.string()), tags: z.array(z.string()), revision: z.number(),
  /** First and last day with charges; null before anything is loaded. */
  firstDay: day.nullable(), lastDay: day.nullable(), currencies: z.array(z.string()), charges: z.number(),
})
export type DimensionList = z.infer<typeof dimensionList>
