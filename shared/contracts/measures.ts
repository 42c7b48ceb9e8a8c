import { z } from 'zod'
import { isDateOf, measureGrains } from '../../core/unit-cost/business-measure'
import { wrongValue } from '../../core/unit-cost/measure-table'
import { namedRecord } from '../../core/text/named-record'
import { amountText, month } from './common'
import { costMeasure } from './spend'

const LARGEST_LOAD = 200_000
export const measureName = z
  .string()
  .trim()
  .min(1, 'give the measure a name')
  .max(80)
  .regex(/^[^/]+$/, 'no slash in the name of a measure')

const measureValue = z.object({
  centre: z.string().min(1),
  date: z.string(),
  value: z.string().superRefine((text, context) => {
    const why = wrongValue(text)
    if (why) context.addIssue({ code: 'custom', message: `${why}: write what was counted, from 0 on` })
  }),
})

/** What was counted of a business measure. */
export const measureKept = z
  .object({
    unit: z.string().trim().min(1, 'say what is counted, such as bookings').max(40),
    grain: z.enum(measureGrains),
    tree: z.string().min(1).nullable().default(null),
    values: z.array(measureValue),
  })
  .superRefine(({ grain, values }, context) => {
    const seen = new Set<string>()
    values.forEach(({ centre, date }, index) => {
      const wrong = (message: string) => context.addIssue({ code: 'custom', path: ['values', index], message })
      if (!isDateOf(grain, date)) wrong(`«${date}» is no ${grain}: write ${grain === 'day' ? '2026-10-05' : '2026-10'}`)
      const key = JSON.stringify([centre, date])
      if (seen.has(key)) wrong(`${centre} for ${date} appears twice`)
      seen.add(key)
    })
  })
/** As much as is taken at once; it stands in place of what was told for the same cost centres and dates, others stay. */
export const measureLoad = measureKept.safeExtend({
  values: z.array(measureValue).max(LARGEST_LOAD, `at most ${LARGEST_LOAD} values at once`),
})
/** What is saved of measures, all or nothing; each names the state it was held against, unless there is none yet. */
export const measuresSave = z
  .object({
    measures: z
      .array(measureLoad.safeExtend({ name: measureName, basedOn: z.number().int().optional() }))
      .min(1)
      .max(100),
  })
  .superRefine(({ measures }, context) => {
    measures.forEach(({ name }, index) => {
      if (measures.findIndex(one => one.name === name) !== index)
        context.addIssue({ code: 'custom', path: ['measures', index, 'name'], message: `«${name}» appears twice` })
    })
  })
export type MeasureLoad = z.infer<typeof measureLoad>

const summary = {
  name: z.string(),
  unit: z.string(),
  grain: z.enum(measureGrains),
  tree: z.string().nullable(),
  /** By whom and when; null for whoever sees a part of the company: others may have been counted then. */
  saved: z.object({ version: z.number(), who: z.string(), savedAt: z.string() }).nullable(),
}
/** Measures that are for who asks, with what is told of each: by how many cost centres, from which date to which. */
export const measureList = z.object({
  measures: z.array(z.object({ ...summary, centres: z.number(), first: z.string(), last: z.string(), values: z.number() })),
})
export type MeasureList = z.infer<typeof measureList>
export const measureState = z.object({ ...summary, values: z.array(z.object({ centre: z.string(), date: z.string(), value: z.string() })) })
export type MeasureState = z.infer<typeof measureState>
/** A measure by month and cost centre, as pools are divided by it. */
export const measureMonths = z.object({
  name: z.string(),
  unit: z.string(),
  grain: z.enum(measureGrains),
  tree: z.string().nullable(),
  months: namedRecord(namedRecord(z.object({ sum: amountText, told: z.number().int().min(0) }))),
})
/** How many values were new and how many others than before. */
export const measuresSaved = z.object({
  saved: z.array(
    z.object({
      name: z.string(),
      added: z.number(),
      changed: z.number(),
      /** Cost centres of the load that the newest plan does not have: nothing goes by what is told of them. */
      unknown: z.array(z.string()),
    }),
  ),
})
export const measureDropped = z.object({ name: z.string() })

/** Months until one, by one of the costs: what lies directly on a cost centre and those below it, or with what they bear of pools. */
export const unitCostsAsked = z.object({
  measure: z.string().min(1),
  cost: costMeasure,
  of: z.enum(['direct', 'full']),
  until: month,
  months: z.coerce.number().int().min(1).max(36).default(13),
})
export type UnitCostsAsked = z.infer<typeof unitCostsAsked>

/** What one costs in a month: `to` is its last day where it is not over, `noRate` are currencies with cost and without a rate. */
export const unitCostMonth = z.object({
  month,
  cost: amountText.nullable(),
  quantity: z.string().nullable(),
  missing: z.number(),
  unitCost: z.string().nullable(),
  to: z.string().nullable(),
  noRate: z.array(z.string()),
})
const estimated = z.object({ value: z.number(), low: z.number(), high: z.number() })
export const unitCosts = z.object({
  name: z.string(),
  unit: z.string(),
  grain: z.enum(measureGrains),
  /** Sources that have not delivered a month as far as others: then what one costs is not defined in it. */
  late: z.array(z.object({ month, source: z.string(), lastDay: z.string() })),
  /** The currency of all of it; cost billed in others is reckoned at the rate of the month's last day. */
  currency: z.string(),
  products: z.array(
    z.object({
      centre: z.string(),
      name: z.string(),
      months: z.array(unitCostMonth),
      /** Over all months in which it is defined. */
      whole: z.string().nullable(),
      behaviour: z.union([
        z.object({ fixed: estimated, variable: estimated, explained: z.number(), points: z.number() }),
        z.object({ why: z.enum(['too few points', 'always as many']), points: z.number() }),
      ]),
    }),
  ),
})
export type UnitCosts = z.infer<typeof unitCosts>
