import { z } from 'zod'
import { isCurrency } from '../money/currency'
import { parseDecimal } from '../money/decimal'
import { isDay } from '../time/day'

const decimal = z.string().refine(text => parseDecimal(text)?.gte(0) === true, 'a number of zero or more, as text, such as "0.0231"')

export const meters = [
  'server-hour', 'disk-gb-month', 'object-gb-month', 'object-write-1000', 'object-read-1000', 'transfer-out-gb', 'gateway-hour', 'gateway-gb',
  'database-hour', 'database-gb-month', 'logs-ingested-gb', 'logs-kept-gb-month', 'logs-searched-gb', 'snapshot-gb-month', 'load-balancer-hour', 'analytics-scanned-tb',
] as const
/** What a price measures. */
export type Meter = typeof meters[number]

export const upfronts = ['none', 'part', 'all'] as const
/** How much of a commitment is paid when it starts. */
export type Upfront = typeof upfronts[number]

const tier = z.object({
  /** First unit that the tier holds for; the first tier starts at 0. */
  from: decimal,
  price: decimal,
})
export type Tier = z.infer<typeof tier>

/** A commitment to one server: paid for every hour of the term, used or not. */
const commitmentPrice = z.object({ years: z.union([z.literal(1), z.literal(3)]), upfront: z.enum(upfronts), upfrontPrice: decimal, hourlyPrice: decimal })
export type CommitmentPrice = z.infer<typeof commitmentPrice>

const priceLine = z.object({
  sku: z.string().min(1),
  service: z.string().min(1),
  meter: z.enum(meters),
  /** The size, class or kind that the price is for; null where there is one only. */
  variant: z.string().nullable(),
  region: z.string(),
  unit: z.string().min(1),
  tiering: z.enum(['graduated', 'whole']),
  tiers: z.array(tier).min(1),
  /** First units a month that are not charged, when one chooses to count on them. */
  freeAllowance: decimal.optional(),
  minimumQuantity: decimal.optional(),
  commitments: z.array(commitmentPrice).optional(),
})
export type PriceLine = z.infer<typeof priceLine>

/** A provider's price list from a day on, in one currency. */
export const rateCardSchema = z.object({
  provider: z.string().min(1),
  currency: z.string().refine(isCurrency, 'not an ISO 4217 currency'),
  validFrom: z.string().refine(isDay, 'write a day like 2026-11-01'),
  regions: z.array(z.object({ id: z.string().min(1), name: z.string().min(1) })).min(1),
  serverSizes: z.array(z.object({ size: z.string().min(1), vcpu: z.number().positive(), memoryGb: z.number().positive() })),
  prices: z.array(priceLine).min(1),
}).superRefine((card, context) => {
  const skus = new Set<string>()
  card.prices.forEach((line, index) => {
    const wrong = (field: string, message: string) => context.addIssue({ code: 'custom', path: ['prices', index, field], message })
    if (skus.has(line.sku)) wrong('sku', `the SKU ${line.sku} is in the card twice`)
    skus.add(line.sku)
    if (!card.regions.some(region => region.id === line.region)) wrong('region', `the card has no region ${line.region}`)
    if (Number(line.tiers[0]!.from) !== 0) wrong('tiers', 'the first tier must start at 0')
    line.tiers.forEach((tier, i) => {
      const next = line.tiers[i + 1]
      if (next && Number(next.from) <= Number(tier.from)) wrong('tiers', `the tier from ${next.from} does not come after the tier from ${tier.from}`)
    })
    const terms = new Set<string>()
    for (const { years, upfront } of line.commitments ?? []) {
      if (terms.has(`${years} ${upfront}`)) wrong('commitments', `${years} years, ${upfront} upfront is there twice`)
      terms.add(`${years} ${upfront}`)
    }
  })
})
export type RateCard = z.infer<typeof rateCardSchema>

/** The line of a meter and variant in a region; undefined when the card has none. */
export function findPrice(card: RateCard, meter: Meter, region: string, variant: string | null = null): PriceLine | undefined {
  return card.prices.find(line => line.meter === meter && line.region === region && line.variant === variant)
}

/** Variants (sizes, classes) that a meter has in a region, in the card's order. */
export function variantsOf(card: RateCard, meter: Meter, region: string): string[] {
  return card.prices.filter(line => line.meter === meter && line.region === region).flatMap(line => line.variant ?? [])
}
