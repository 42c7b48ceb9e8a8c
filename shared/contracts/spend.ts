import { z } from 'zod'
import { namedRecord } from '../../core/text/named-record'
import { costMeasures, measures } from '../../core/spend/question'
import { grains } from '../../core/time/grain'
import { amountText, currencyAmount, day, month } from './common'

export const costMeasure = z.enum(costMeasures)
export const spendMeasure = z.enum(measures)
export const grain = z.enum(grains)
const narrowing = z.record(z.string(), z.array(z.string().nullable()))
/** A further condition: values of a dimension whose text contains something, or whose billed cost in the period is above an amount. */
export const spendCondition = z.union([
  z.object({ dimension: z.string(), keep: z.boolean(), contains: z.string().min(1) }),
  z.object({ dimension: z.string(), keep: z.boolean(), above: amountText }),
])

/** Which charges are looked at, whenever they are of. */
export const spendScope = {
  keep: narrowing.default({}),
  leaveOut: narrowing.default({}),
  conditions: z.array(spendCondition).max(20).default([]),
}
const scope = {
  ...spendScope,
  billingMonth: month.optional(),
  /** By source the day before which its charges have to start: `start` and `end` stay as they are for all others. */
  ends: namedRecord(day).optional(),
  /** By source the day from which on its charges have to start. */
  begins: namedRecord(day).optional(),
  /** Whether charges stand in time by their charge periods, as without it, or by their billing periods, as statements and invoices do. */
  basis: z.enum(['charge', 'billing']).optional(),
  /** Only charges whose charge period starts outside their billing period: corrections of months before, purchases for later ones. */
  elsewhere: z.boolean().optional(),
}
const splitBy = z
  .array(z.string())
  .max(8)
  .refine(list => new Set(list).size === list.length, 'name each dimension once')

const reportCurrency = z
  .string()
  .regex(/^[A-Z]{3}$/, 'use the three-letter code in capitals, such as EUR')
  .optional()

export const spendQuestion = z
  .object({
    measure: spendMeasure,
    splitBy,
    grain: grain.nullable(),
    start: day,
    end: day,
    ...scope,
    /** Only so many of the largest of each currency or unit: amounts of different ones are not larger or smaller than each other. */
    limit: z.number().int().positive().optional(),
    /** One currency for all costs, at the rates of each charge's day; what has no rate stays in its own. */
    reportCurrency,
  })
  .refine(question => question.start < question.end, { path: ['end'], message: 'must be after start; the end is exclusive' })
export type SpendQuestion = z.input<typeof spendQuestion>

/** Several questions of one state of the data. */
/** With `packed` the rows come column by column, each value listed once: a fifth of the size. */
export const spendQuestions = z.object({ questions: z.array(spendQuestion).min(1).max(2000), packed: z.boolean().default(false) })

/** A period, and by source where it ends there. */
const period = z
  .object({ start: day, end: day, ends: namedRecord(day).optional() })
  .refine(p => p.start < p.end, { path: ['end'], message: 'must be after start; the end is exclusive' })
const { ends: _ends, ...compareScope } = scope
export const compareQuestion = z.object({
  measure: costMeasure,
  splitBy,
  now: period,
  before: period,
  ...compareScope,
  currency: z.string().optional(),
  reportCurrency,
})
const effects = z.object({
  quantity: amountText,
  price: amountText,
  both: amountText,
  newAndGone: amountText,
  corrections: amountText,
  tax: amountText,
  credits: amountText,
  purchases: amountText,
  other: amountText,
})
export const spendComparison = z.object({
  contributions: z.array(
    z.object({
      values: z.record(z.string(), z.string().nullable()),
      kind: z.enum(['new', 'gone', 'both']),
      currency: z.string(),
      now: amountText,
      before: amountText,
      difference: amountText,
      perDay: amountText,
      effects,
      /** The description of the charges that make most of the difference, where one does. */
      mostly: z.object({ description: z.string(), difference: amountText }).nullable(),
    }),
  ),
  totals: z.array(
    z.object({ currency: z.string(), now: amountText, before: amountText, difference: amountText, perDay: amountText, effects }),
  ),
  daysNow: z.number(),
  daysBefore: z.number(),
  revision: z.number(),
})
export type SpendComparison = z.infer<typeof spendComparison>

const answerRow = z.object({
  values: z.record(z.string(), z.string().nullable()),
  /** A day, or an hour as `2026-11-17T13`. */ start: z.string().nullable(),
  currency: z.string(),
  amount: amountText,
  /** Of a unit price: what it is the quotient of. */
  cost: amountText.optional(),
  quantity: amountText.optional(),
})
export const spendAnswer = z.object({
  totals: z.array(currencyAmount),
  rows: z.array(answerRow),
  rest: z.object({ count: z.number(), amounts: z.array(currencyAmount) }).nullable(),
  /** With a report currency: the sums before they were converted, and what no rate was found for. */
  original: z.array(currencyAmount).optional(),
  unconverted: z.array(z.object({ currency: z.string(), from: day, to: day, amount: amountText })).optional(),
  /** Of unit prices: what has a unit but no quantity, with its cost as the amount; it is in the totals, and has no price of its own. */
  unpriced: z.array(answerRow).optional(),
  revision: z.number(),
})
export type SpendAnswer = z.infer<typeof spendAnswer>
const answerOfSeveral = spendAnswer.omit({ revision: true })
export const spendAnswers = z.object({ answers: z.array(answerOfSeveral), revision: z.number() })
const packedColumn = <T extends z.ZodType>(value: T) => z.object({ values: z.array(value), codes: z.array(z.number()) })
/** The same with packed rows: `codes` point into `values`, amounts are decimal texts with a space between. */
export const packedAnswers = z.object({
  answers: z.array(
    answerOfSeveral
      .omit({ rows: true })
      .extend({
        splitBy: z.array(z.string()),
        rows: z.object({
          count: z.number(),
          splits: z.array(packedColumn(z.string().nullable())),
          starts: packedColumn(z.string()).nullable(),
          currencies: packedColumn(z.string()),
          amounts: z.string(),
          costs: z.string().optional(),
          quantities: z.string().optional(),
        }),
      }),
  ),
  revision: z.number(),
})

/** Quantity × unit price, as the charges have it. */
export const pricePart = z.object({
  skuId: z.string().nullable(),
  skuPriceId: z.string().nullable(),
  chargeCategory: z.string().nullable(),
  description: z.string().nullable(),
  pricingUnit: z.string().nullable(),
  unitPrice: amountText.nullable(),
  quantity: amountText,
  currency: z.string(),
  amount: amountText,
  charges: z.number(),
  firstDay: day,
  lastDay: day,
})
/** The largest parts, and what all others come to. */
export const priceParts = z.object({
  parts: z.array(pricePart),
  rest: z.object({ count: z.number(), amounts: z.array(currencyAmount) }).nullable(),
  revision: z.number(),
})
export type PriceParts = z.infer<typeof priceParts>

export const dimensionList = z.object({
  /** Billing periods whose kept charges are damaged: they are in no figure until their files are loaded again. */
  damaged: z.array(z.object({ source: z.string(), billingPeriodStart: z.string() })),
  /** The names of the cost centres that who asks sees, with all below them: no figure has more; null for everything. */
  within: z.array(z.string()).nullable(),
  /** The currency that the company reports in; null where it has not said so. */
  reportCurrency: z.string().nullable(),
  columns: z.array(z.string()),
  tags: z.array(z.string()),
  revision: z.number(),
  /** Dimensions whose keys came with the data: tags, price details, own columns, levels of trees. */
  found: z.array(z.string()),
  /** FOCUS columns that no charge has a value in, with the version that brought them. */
  unused: z.array(z.object({ name: z.string(), since: z.string() })),
  /** Keys of tags that something inherits. */
  inherited: z.array(z.string()),
  /** Whether any charge is of an hour. */
  hourly: z.boolean(),
  /** First day with charges, and the last whose use any source has delivered whole; null before anything is loaded. */
  firstDay: day.nullable(),
  lastDay: day.nullable(),
  /** How far each source's charges reach, see `core/spend/freshness.ts`. */
  sources: z.array(
    z.object({ source: z.string(), lastDay: day, partialDay: day.nullable(), deliveredAt: z.string(), laterFrom: day.nullable() }),
  ),
  currencies: z.array(z.string()),
  charges: z.number(),
})
export type DimensionList = z.infer<typeof dimensionList>

/** From which day on tags have been reported. Keys that no charge has are left out. */
export const tagKeysAsked = z.object({ keys: z.array(z.string().min(1)).min(1) })
export const firstSeen = z.object({ revision: z.number(), tags: z.array(z.object({ key: z.string(), firstDay: day })) })

/** A tag and the charges that are looked at. */
export const tagAsked = z
  .object({ key: z.string().min(1), start: day, end: day, ...scope })
  .refine(asked => asked.start < asked.end, { path: ['end'], message: 'must be after start; the end is exclusive' })
/** Cost day by day that has the tag, that lacks it, and of which it was not yet reported, by source and sub account. */
export const tagDays = z.object({
  days: z.array(z.object({ start: day, currency: z.string(), tagged: amountText, missing: amountText, early: amountText })),
  revision: z.number(),
})
/** Sources whose charges have the tag only from a day on, or never: for how many of their sub accounts that holds. */
export const lateTags = z.object({
  late: z.array(z.object({ source: z.string(), firstDay: day.nullable(), subAccounts: z.number(), of: z.number() })),
  revision: z.number(),
})
