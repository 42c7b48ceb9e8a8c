import { z } from 'zod'
import { isCurrency } from '../money/currency'
import { Decimal, parseDecimal } from '../money/decimal'
import { isDay } from '../time/day'
import { meterFacts, units } from './meters'
import { usualPayment } from './earlier-words'
import { placeOf } from './price-place'

export type { Meter } from './meters'

/** The largest number that a card may hold, and the most decimals: what amounts keep exactly. */
const LARGEST = '1e12'
const MOST_DECIMALS = 15

const decimal = z.string().superRefine((text, context) => {
  const value = parseDecimal(text)
  const wrong = (message: string) => context.addIssue({ code: 'custom', message })
  if (!value || value.lt(0)) wrong('a number of zero or more, as text, such as "0.0231"')
  else if (value.gt(LARGEST)) wrong(`«${text}» is above 1,000,000,000,000: no price or quantity may be larger`)
  else if (!value.round(MOST_DECIMALS, 0).eq(value)) wrong(`«${text}» has more than ${MOST_DECIMALS} decimals: round it`)
})

/** How a commitment is paid: every month, a part when it starts, or all of it. */
const payments = ['paid monthly', 'part in advance', 'all in advance'] as const

const tier = z.strictObject({
  from: decimal.describe('first unit that the tier holds for; the first tier starts at 0'),
  to: decimal.optional().describe('where the tier ends, when the card says it: the start of the next tier'),
  price: decimal.describe('price of a unit'),
})

const commitmentPrice = z
  .strictObject({
    years: z.union([z.literal(1), z.literal(3)], 'a commitment needs its term: 1 or 3 years'),
    paid: z.enum(payments, `a commitment is ${payments.join(', ')}`),
    upfrontPrice: decimal.describe('paid for each when the term begins'),
    hourlyPrice: decimal.describe('paid for every hour of the term, used or not'),
  })
  .describe('a commitment to one of it')
export type CommitmentPrice = z.infer<typeof commitmentPrice>

const priceLine = z.strictObject({
  sku: z.string().min(1).max(120).describe("the line's own code, once in a card"),
  service: z.string().min(1).max(120).describe('the service as bills name it'),
  meter: z
    .string()
    .regex(/^[a-z][a-z0-9-]*$/, 'small letters, digits and hyphens, such as server-hour')
    .describe('what is measured'),
  variant: z.string().min(1).nullable().describe('the size, class or kind that the price is for; null where there is one only'),
  region: z.string(),
  unit: z.enum(units, 'a unit that is not known'),
  tiering: z.enum(['graduated', 'whole']).describe('graduated: each unit at its own tier; whole: all units at the tier that is reached'),
  tiers: z.array(tier).min(1),
  freeAllowance: decimal.optional().describe('first units a month that are not charged, when one chooses to count on them'),
  minimumQuantity: decimal.optional().describe('least quantity a month that is charged'),
  minimumCharge: decimal.optional().describe("least amount a month that is charged, in the card's currency"),
  commitments: z.array(commitmentPrice).optional(),
  charged: z.enum(['existing', 'use']).optional().describe('charged for being there, or for use; as the meter has it when not given'),
  includes: z
    .record(z.string(), decimal)
    .optional()
    .describe('what the price includes or asks for, such as iops, mbps, storageGb, minimumDays'),
  serviceLevel: z.string().max(60).optional().describe('what the provider promises, such as "99.9 % a month"'),
  excludes: z.string().max(300).optional().describe('what the price does not cover, in words'),
})
export type PriceLine = z.infer<typeof priceLine>

const serverSize = z.strictObject({
  size: z.string().min(1),
  vcpu: z.number('vcpu is a number, such as 4').positive().max(1e6),
  memoryGb: z.number('memory is a number of GB, such as 16').positive().max(1e6),
  architecture: z.string().optional(),
  systems: z.array(z.string()).optional().describe('operating systems that run on it; all of them when not given'),
  diskClasses: z.array(z.string()).optional().describe('disk classes it can take; all of them when not given'),
  dedicated: z.boolean().optional().describe('whether it can stand on a dedicated host'),
})
export type ServerSize = z.infer<typeof serverSize>

export const region = z.strictObject({
  id: z.string().min(1),
  name: z.string().min(1),
  residency: z.string().optional().describe('the area in which data stays'),
  zones: z.number('zones are a whole number, such as 3').int().positive().max(1000).optional(),
})

/** Why a price line does not fit into its card, by field; empty when it does. `skus` are those of the lines before it. */
function lineProblems(
  line: PriceLine,
  regions: ReadonlySet<string>,
  sizes: ReadonlySet<string>,
  skus: ReadonlySet<string>,
): { field: string; message: string }[] {
  const problems: { field: string; message: string }[] = []
  const wrong = (field: string, message: string) => problems.push({ field, message })
  if (skus.has(line.sku)) wrong('sku', `the SKU ${line.sku} is in the card twice`)
  if (!regions.has(line.region)) wrong('region', `the card has no region ${line.region}`)
  if (line.meter === 'server-hour' && !sizes.has(line.variant ?? ''))
    wrong('variant', `the card does not say how large ${line.variant ?? 'it'} is: name it among the server sizes`)
  const facts = meterFacts(line.meter)
  if (facts && facts.unit !== line.unit) wrong('unit', `${line.meter} is priced in ${facts.unit}, not in ${line.unit}`)
  // a line without tiers is said where it stands; so is what is no number, which has no place among others
  if (!line.tiers.length) return problems
  if (!line.tiers.every(({ from, to }) => [from, to ?? '0'].every(text => decimal.safeParse(text).success))) return problems
  if (!new Decimal(line.tiers[0]!.from).eq(0)) wrong('tiers', 'the first tier must start at 0')
  line.tiers.forEach((tier, i) => {
    const next = line.tiers[i + 1]
    if (next && new Decimal(next.from).lte(tier.from))
      wrong('tiers', `the tier from ${next.from} does not come after the tier from ${tier.from}`)
    if (next && tier.to !== undefined && !new Decimal(tier.to).eq(next.from))
      wrong(
        'tiers',
        `there is ${new Decimal(tier.to).lt(next.from) ? 'a gap' : 'an overlap'} between the tier to ${tier.to} and the tier from ${next.from}`,
      )
    if (!next && tier.to !== undefined) wrong('tiers', `nothing is priced from ${tier.to} on: leave the end of the last tier open`)
  })
  const terms = new Set<string>()
  for (const { years, paid, upfrontPrice, hourlyPrice } of line.commitments ?? []) {
    if (terms.has(`${years} ${paid}`)) wrong('commitments', `${years} years, ${paid} appears twice`)
    terms.add(`${years} ${paid}`)
    if (paid !== 'paid monthly' && parseDecimal(upfrontPrice)?.eq(0))
      wrong('commitments', `${years} years, ${paid}: it has no upfront price`)
    if (paid !== 'all in advance' && parseDecimal(hourlyPrice)?.eq(0))
      wrong('commitments', `${years} years, ${paid}: it has no hourly price`)
  }
  return problems
}

/** Cards written before ways to pay were called as they are now. */
export function earlierCard(value: unknown): unknown {
  if (typeof value !== 'object' || value === null || !Array.isArray((value as { prices?: unknown }).prices)) return value
  const commitment = (one: unknown): unknown => {
    if (typeof one !== 'object' || one === null || 'paid' in one || !('upfront' in one)) return one
    const { upfront, ...kept } = one
    return { ...kept, paid: typeof upfront === 'string' ? usualPayment(upfront) : upfront }
  }
  const line = (price: unknown): unknown =>
    typeof price === 'object' && price !== null && Array.isArray((price as { commitments?: unknown }).commitments)
      ? { ...price, commitments: (price as { commitments: unknown[] }).commitments.map(commitment) }
      : price
  return { ...value, prices: (value as { prices: unknown[] }).prices.map(line) }
}

/** A provider's price list from a day on, in one currency. */
export const rateCardShape = z.strictObject({
  provider: z.string().min(1).max(120),
  currency: z.string().refine(isCurrency, 'not an ISO 4217 currency'),
  validFrom: z.string().refine(isDay, 'write a day like 2026-11-01'),
  regions: z.array(region).min(1),
  serverSizes: z.array(serverSize),
  prices: z.array(priceLine).min(1),
})

/** The shape with the checks across its lines; earlier words for ways to pay are read. */
export const rateCardSchema = z.preprocess(
  earlierCard,
  rateCardShape.superRefine((card, context) => {
    const twice = (list: string[], path: 'regions' | 'serverSizes', what: string) =>
      list.forEach((id, index) => {
        if (list.indexOf(id) !== index)
          context.addIssue({ code: 'custom', path: [path, index], message: `the ${what} ${id} appears twice` })
      })
    twice(
      card.regions.map(r => r.id),
      'regions',
      'region',
    )
    twice(
      card.serverSizes.map(s => s.size),
      'serverSizes',
      'size',
    )
    const places = new Map<string, string>()
    const regions = new Set(card.regions.map(r => r.id))
    const sizes = new Set(card.serverSizes.map(s => s.size))
    const skus = new Set<string>()
    card.prices.forEach((line, index) => {
      for (const { field, message } of lineProblems(line, regions, sizes, skus))
        context.addIssue({ code: 'custom', path: ['prices', index, field], message })
      skus.add(line.sku)
      const place = placeOf(line.meter, line.region, line.variant)
      const other = places.get(place)
      if (other !== undefined && other !== line.sku)
        context.addIssue({
          code: 'custom',
          path: ['prices', index, 'variant'],
          message: `${line.meter}${line.variant === null ? '' : ` «${line.variant}»`} in ${line.region} has two prices: ${other} and ${line.sku}; leave one`,
        })
      else places.set(place, line.sku)
    })
  }),
)
export type RateCard = z.infer<typeof rateCardShape>
