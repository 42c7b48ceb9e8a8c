import { z } from 'zod'
import { isCurrency } from '../money/currency'
import { Decimal, parseDecimal } from '../money/decimal'
import { isDay } from '../time/day'
import { meterFacts, units, type Meter } from './meters'

export type { Meter } from './meters'

const decimal = z.string().refine(text => parseDecimal(text)?.gte(0) === true, 'a number of zero or more, as text, such as "0.0231"')

export const upfronts = ['none', 'part', 'all'] as const
/** How much of a commitment is paid when it starts. */
export type Upfront = typeof upfronts[number]

const tier = z.strictObject({
  from: decimal.describe('first unit that the tier holds for; the first tier starts at 0'),
  to: decimal.optional().describe('where the tier ends, when the card says it: the start of the next tier'),
  price: decimal.describe('price of a unit'),
})
export type Tier = z.infer<typeof tier>

const commitmentPrice = z.strictObject({
  years: z.union([z.literal(1), z.literal(3)], 'a commitment needs its term: 1 or 3 years'), upfront: z.enum(upfronts),
  upfrontPrice: decimal.describe('paid for each when the term begins'), hourlyPrice: decimal.describe('paid for every hour of the term, used or not'),
}).describe('a commitment to one of it')
export type CommitmentPrice = z.infer<typeof commitmentPrice>

const priceLine = z.strictObject({
  sku: z.string().min(1).max(120).describe('the line\'s own code, once in a card'),
  service: z.string().min(1).max(120).describe('the service as bills name it'),
  meter: z.string().regex(/^[a-z][a-z0-9-]*$/, 'small letters, digits and hyphens, such as server-hour').describe('what is measured'),
  variant: z.string().min(1).nullable().describe('the size, class or kind that the price is for; null where there is one only'),
  region: z.string(),
  unit: z.enum(units, 'a unit that is not known'),
  tiering: z.enum(['graduated', 'whole']).describe('graduated: each unit at its own tier; whole: all units at the tier that is reached'),
  tiers: z.array(tier).min(1),
  freeAllowance: decimal.optional().describe('first units a month that are not charged, when one chooses to count on them'),
  minimumQuantity: decimal.optional().describe('least quantity a month that is charged'),
  minimumCharge: decimal.optional().describe('least amount a month that is charged, in the card\'s currency'),
  commitments: z.array(commitmentPrice).optional(),
  charged: z.enum(['existing', 'use']).optional().describe('charged for being there, or for use; as the meter has it when not given'),
  includes: z.record(z.string(), decimal).optional().describe('what the price includes or asks for, such as iops, mbps, storageGb, minimumDays'),
  serviceLevel: z.string().max(60).optional().describe('what the provider promises, such as "99.9 % a month"'),
  excludes: z.string().max(300).optional().describe('what the price does not cover, in words'),
})
export type PriceLine = z.infer<typeof priceLine>

const serverSize = z.strictObject({
  size: z.string().min(1), vcpu: z.number().positive(), memoryGb: z.number().positive(),
  architecture: z.string().optional(),
  systems: z.array(z.string()).optional().describe('operating systems that run on it; all of them when not given'),
  diskClasses: z.array(z.string()).optional().describe('disk classes it can take; all of them when not given'),
  dedicated: z.boolean().optional().describe('whether it can stand on a dedicated host'),
})
export type ServerSize = z.infer<typeof serverSize>

const region = z.strictObject({ id: z.string().min(1), name: z.string().min(1), residency: z.string().optional().describe('the area in which data stays'), zones: z.number().int().positive().optional() })

/** Why a price line does not fit into its card, by field; empty when it does. `skus` are those of the lines before it. */
function lineProblems(line: PriceLine, regions: ReadonlySet<string>, sizes: ReadonlySet<string>, skus: ReadonlySet<string>): { field: string, message: string }[] {
  const problems: { field: string, message: string }[] = []
  const wrong = (field: string, message: string) => problems.push({ field, message })
  if (skus.has(line.sku)) wrong('sku', `the SKU ${line.sku} is in the card twice`)
  if (!regions.has(line.region)) wrong('region', `the card has no region ${line.region}`)
  if (line.meter === 'server-hour' && !sizes.has(line.variant ?? '')) wrong('variant', `the card does not say how large ${line.variant ?? 'it'} is: name it among the server sizes`)
  const facts = meterFacts(line.meter)
  if (facts && facts.unit !== line.unit) wrong('unit', `${line.meter} is priced in ${facts.unit}, not in ${line.unit}`)
  if (!new Decimal(line.tiers[0]!.from).eq(0)) wrong('tiers', 'the first tier must start at 0')
  line.tiers.forEach((tier, i) => {
    const next = line.tiers[i + 1]
    if (next && new Decimal(next.from).lte(tier.from)) wrong('tiers', `the tier from ${next.from} does not come after the tier from ${tier.from}`)
    if (next && tier.to !== undefined && !new Decimal(tier.to).eq(next.from)) wrong('tiers', `there is ${new Decimal(tier.to).lt(next.from) ? 'a gap' : 'an overlap'} between the tier to ${tier.to} and the tier from ${next.from}`)
    if (!next && tier.to !== undefined) wrong('tiers', `nothing is priced from ${tier.to} on: leave the end of the last tier open`)
  })
  const terms = new Set<string>()
  for (const { years, upfront } of line.commitments ?? []) {
    if (terms.has(`${years} ${upfront}`)) wrong('commitments', `${years} years, ${upfront} upfront is there twice`)
    terms.add(`${years} ${upfront}`)
  }
  return problems
}

/** A provider's price list from a day on, in one currency. */
export const rateCardSchema = z.strictObject({
  provider: z.string().min(1).max(120),
  currency: z.string().refine(isCurrency, 'not an ISO 4217 currency'),
  validFrom: z.string().refine(isDay, 'write a day like 2026-11-01'),
  regions: z.array(region).min(1),
  serverSizes: z.array(serverSize),
  prices: z.array(priceLine).min(1),
}).superRefine((card, context) => {
  const regions = new Set(card.regions.map(r => r.id))
  const sizes = new Set(card.serverSizes.map(s => s.size))
  const skus = new Set<string>()
  card.prices.forEach((line, index) => {
    for (const { field, message } of lineProblems(line, regions, sizes, skus)) context.addIssue({ code: 'custom', path: ['prices', index, field], message })
    skus.add(line.sku)
  })
})
export type RateCard = z.infer<typeof rateCardSchema>

type Index = { byPlace: Map<string, PriceLine>, variants: Map<string, string[]>, bySku: Map<string, PriceLine>, sizes: Map<string, ServerSize> }
const indexes = new WeakMap<RateCard, Index>()

/** A card never changes once it is read; it is looked up thousands of times while one types. */
function indexOf(card: RateCard): Index {
  const known = indexes.get(card)
  if (known) return known
  const index: Index = { byPlace: new Map(), variants: new Map(), bySku: new Map(), sizes: new Map(card.serverSizes.map(s => [s.size, s])) }
  for (const line of card.prices) {
    const place = `${line.meter}\n${line.region}`
    if (!index.byPlace.has(`${place}\n${line.variant ?? ''}`)) index.byPlace.set(`${place}\n${line.variant ?? ''}`, line)
    if (line.variant !== null) index.variants.set(place, [...index.variants.get(place) ?? [], line.variant])
    index.bySku.set(line.sku, line)
  }
  indexes.set(card, index)
  return index
}

/** The line of a meter and variant in a region; undefined when the card has none. */
export function findPrice(card: RateCard, meter: Meter, region: string, variant: string | null = null): PriceLine | undefined {
  return indexOf(card).byPlace.get(`${meter}\n${region}\n${variant ?? ''}`)
}

/** The line of a SKU. */
export function findSku(card: RateCard, sku: string): PriceLine | undefined {
  return indexOf(card).bySku.get(sku)
}

export function findSize(card: RateCard, size: string): ServerSize | undefined {
  return indexOf(card).sizes.get(size)
}

/** Variants (sizes, classes) that a meter has in a region, in the card's order. */
export function variantsOf(card: RateCard, meter: Meter, region: string): string[] {
  return indexOf(card).variants.get(`${meter}\n${region}`) ?? []
}

/** Whether a region of the card has any price of the meter. */
export function hasMeter(card: RateCard, meter: Meter, region: string): boolean {
  return findPrice(card, meter, region) !== undefined || variantsOf(card, meter, region).length > 0
}
