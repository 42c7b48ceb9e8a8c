import { z } from 'zod'
import { namedRecord } from '../text/named-record'
import { isCurrency } from '../money/currency'
import { parseDecimal } from '../money/decimal'
import { isDay } from '../time/day'
import { presentFormat } from './documents/earlier-format'

/** How something is paid: as it runs, or by a commitment of one or three years. */
export const waysToPay = [
  'on-demand',
  '1 year, paid monthly',
  '1 year, part in advance',
  '1 year, all in advance',
  '3 years, paid monthly',
  '3 years, part in advance',
  '3 years, all in advance',
] as const
export const wayToPay = z.enum(waysToPay)
export type WayToPay = z.infer<typeof wayToPay>

const inputs = namedRecord(z.string().max(500))
const note = z.string().max(2000).default('')

/** One row of the sheet. `inputs` are checked by the schema of its kind. */
export const componentSchema = z.strictObject({
  id: z.string().min(1).max(60),
  part: z.string().max(120).describe('the named part of the workload that it belongs to'),
  kind: z.string().min(1),
  name: z.string().max(80).default('').describe('what people call the row; its kind names it where this is empty'),
  inputs: inputs.describe('by the name of the field; numbers as text, a range as low..likely..high'),
  confirmed: z.array(z.string()).describe('inputs that a person has set or agreed to; the others are defaults'),
  note,
  muted: z.boolean().default(false).describe('kept, but not counted'),
  pattern: z.string().nullable().default(null).describe('the pattern that it was made from'),
})
export type Component = z.infer<typeof componentSchema>

const percent = z.string().refine(text => {
  const value = parseDecimal(text)
  return value !== null && value.gte(0) && value.lte(100)
}, 'a percentage from 0 to 100')
const decimal = z.string().refine(text => parseDecimal(text)?.gte(0) === true, 'a number of zero or more')
const above = z.string().refine(text => parseDecimal(text)?.gt(0) === true, 'a number above zero')
const day = z.string().refine(isDay, 'write a day like 2026-11-01')
const currency = z.string().refine(isCurrency, 'not an ISO 4217 currency')

const scenarioSchema = z.strictObject({
  id: z.string().min(1).max(60),
  name: z.string().trim().min(1, 'give the scenario a name').max(80),
  whole: inputs.describe('inputs that change for every row that has them, such as where and pays'),
  rows: namedRecord(inputs).describe('inputs that change for one row, by its id; `muted` with «yes» leaves the row out'),
  conditions: z.array(z.string().max(200)).max(50).default([]).describe('what must be so for it to hold, such as «if it runs on arm64»'),
})
/** A column of an estimate: the same components under other choices. */
export type Scenario = z.infer<typeof scenarioSchema>

const shape = z.strictObject({
  format: z.literal('rain-barrel estimate 3'),
  name: z.string().trim().min(1, 'give the estimate a name').max(120),
  note,
  currency: currency.nullable().describe("of the totals; null is the currency of the provider's card"),
  provider: z.string().min(1).describe('where rows stand that do not say otherwise'),
  region: z.string().min(1),
  cards: z
    .array(z.strictObject({ provider: z.string().min(1), date: day, revision: z.number().int().min(1).default(1) }))
    .min(1)
    .describe('the version of each rate card that it is priced on: its day, and which revision of that day'),
  rates: z
    .array(z.strictObject({ from: currency, rate: above, day }))
    .describe(
      "rates of this estimate only, instead of the dated ones: what one unit of another currency is in the estimate's, and on which day",
    ),
  startsOn: day
    .nullable()
    .default(null)
    .describe('when it begins; a named month begins on its first day. Uplifts and exchange rates of that day hold'),
  month: z
    .string()
    .regex(/^\d{4}-(0[1-9]|1[0-2])$/)
    .nullable()
    .describe('a named month counts its own hours; null is the month of 730 hours'),
  termYears: z
    .number()
    .int()
    .min(1)
    .max(5)
    .nullable()
    .describe('years of the whole term; null is the longest commitment chosen, else one year'),
  target: decimal.nullable().describe('effective monthly amount to stay under'),
  useFreeAllowance: z.boolean(),
  discounts: z
    .array(z.strictObject({ provider: z.string().min(1), percent }))
    .describe('negotiated discount on list prices, by buying agreement'),
  funding: z
    .array(
      z.strictObject({
        label: z.string().trim().min(1).max(80),
        amount: decimal,
        threshold: decimal.describe('it is given while the month costs at least so much'),
        fromMonth: z.number().int().min(1).max(120).default(1).describe('first month of the term in which it is given'),
        months: z.number().int().min(1).max(120),
      }),
    )
    .describe('credits a month, in the months that are named'),
  marginPercent: percent
    .refine(text => parseDecimal(text)?.lt(100) ?? true, 'below 100')
    .describe("reseller's margin, as a share of the customer's price"),
  taxPercent: percent,
  components: z.array(componentSchema).max(2000),
  scenarios: z.array(scenarioSchema).max(12),
  dismissed: z.array(z.strictObject({ blindSpot: z.string(), reason: z.string().trim().min(1, 'say why it does not apply').max(500) })),
  seed: z.number().int().min(0).max(0xffffffff).describe('where the draws of ranges begin'),
})

/** What a person makes of a workload: inputs only; totals are always computed from them. */
export const estimateSchema = z.preprocess(
  presentFormat,
  shape.superRefine((estimate, context) => {
    const once = (list: string[], path: string, what: string) =>
      list.forEach((key, index) => {
        if (list.indexOf(key) !== index)
          context.addIssue({ code: 'custom', path: [path, index], message: `the ${what} «${key}» appears twice` })
      })
    once(
      estimate.components.map(c => c.id),
      'components',
      'component',
    )
    once(
      estimate.scenarios.map(s => s.id),
      'scenarios',
      'scenario',
    )
    once(
      estimate.cards.map(c => c.provider),
      'cards',
      'rate card of',
    )
    once(
      estimate.rates.map(r => r.from),
      'rates',
      'rate from',
    )
    once(
      estimate.discounts.map(d => d.provider),
      'discounts',
      'discount of',
    )
    if (!estimate.cards.some(c => c.provider === estimate.provider))
      context.addIssue({ code: 'custom', path: ['cards'], message: `no rate card of ${estimate.provider} is named` })
  }),
)
export type Estimate = z.infer<typeof shape>
/** The plain schema without its checks across fields: for the published JSON Schema. */
export const estimateShape = shape

/**
 * An estimate with nothing in it yet. Nothing is chosen for anyone: on-demand, no discount, no tax, free units not counted on.
 * @param startsOn the day on which it begins; null leaves it open, and everything that is dated holds as it does last.
 */
export function newEstimate(
  name: string,
  card: { provider: string; validFrom: string; currency: string; revision?: number },
  region: string,
  startsOn: string | null = null,
): Estimate {
  return {
    format: 'rain-barrel estimate 3',
    name,
    note: '',
    currency: card.currency,
    provider: card.provider,
    region,
    cards: [{ provider: card.provider, date: card.validFrom, revision: card.revision ?? 1 }],
    rates: [],
    startsOn,
    month: null,
    termYears: null,
    target: null,
    useFreeAllowance: false,
    discounts: [],
    funding: [],
    marginPercent: '0',
    taxPercent: '0',
    components: [],
    scenarios: [],
    dismissed: [],
    seed: 1,
  }
}

/** The day on which an estimate begins: of a named month the first; null when nobody has said it. */
export function startOf({ month, startsOn }: Pick<Estimate, 'month' | 'startsOn'>): string | null {
  return month === null ? startsOn : `${month}-01`
}

/** A row as it begins. */
export function newRow(
  id: string,
  part: string,
  kind: string,
  inputs: Record<string, string> = {},
  more: Partial<Component> = {},
): Component {
  return { id, part, kind, name: '', inputs, confirmed: Object.keys(inputs), note: '', muted: false, pattern: null, ...more }
}
