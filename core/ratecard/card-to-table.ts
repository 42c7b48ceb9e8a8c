import type { PriceLine, RateCard } from './rate-card'
import type { Line } from './card-columns'

const list = (values: readonly string[] | undefined) => values?.join('; ')
const filled = (line: Line): Line => Object.fromEntries(Object.entries(line).filter(([, value]) => value !== undefined)) as Line

/** The card as lines of a table, each a record by column; a price has a line for each tier and each commitment. */
export function cardToTable(card: RateCard): Line[] {
  return [
    { row: 'card', provider: card.provider, currency: card.currency, 'valid from': card.validFrom },
    ...card.regions.map(r => ({ row: 'region', region: r.id, name: r.name, residency: r.residency, zones: r.zones?.toString() })),
    ...card.serverSizes.map(s => ({
      row: 'size',
      size: s.size,
      vcpu: String(s.vcpu),
      'memory gb': String(s.memoryGb),
      architecture: s.architecture,
      systems: list(s.systems),
      'disk classes': list(s.diskClasses),
      dedicated: s.dedicated === undefined ? undefined : s.dedicated ? 'yes' : 'no',
    })),
    ...card.prices.flatMap(priceToLines),
  ].map(filled)
}

function priceToLines(line: PriceLine): Line[] {
  const [first, ...others] = line.tiers
  const includes = line.includes && Object.entries(line.includes).map(([key, value]) => `${key}=${value}`)
  return [
    {
      row: 'price',
      sku: line.sku,
      service: line.service,
      meter: line.meter,
      variant: line.variant ?? undefined,
      region: line.region,
      unit: line.unit,
      tiering: line.tiering,
      ...first,
      'free allowance': line.freeAllowance,
      'minimum quantity': line.minimumQuantity,
      'minimum charge': line.minimumCharge,
      charged: line.charged,
      includes: list(includes),
      'service level': line.serviceLevel,
      excludes: line.excludes,
    },
    ...others.map(tier => ({ row: 'tier', sku: line.sku, ...tier })),
    ...(line.commitments ?? []).map(c => ({
      row: 'commitment',
      sku: line.sku,
      years: String(c.years),
      paid: c.paid,
      'upfront price': c.upfrontPrice,
      'hourly price': c.hourlyPrice,
    })),
  ]
}
