import { Decimal, decimalText } from '../core/money/decimal'
import type { CommitmentPrice, Meter, PriceLine, RateCard } from '../core/ratecard/rate-card'

/** Digits that a printed price list has. */
const printed = (value: number, decimals: number) => decimalText(new Decimal(value.toFixed(decimals)))

const HOURS_A_YEAR = 8760
// What a commitment costs of the on-demand price, by years and upfront: longer and more upfront is cheaper.
const commitmentShares = [
  { years: 1, upfront: 'none', share: 0.7 }, { years: 1, upfront: 'part', share: 0.67 }, { years: 1, upfront: 'all', share: 0.65 },
  { years: 3, upfront: 'none', share: 0.52 }, { years: 3, upfront: 'part', share: 0.49 }, { years: 3, upfront: 'all', share: 0.46 },
] as const

function commitments(hourly: number): CommitmentPrice[] {
  return commitmentShares.map(({ years, upfront, share }) => {
    const effective = Number(printed(hourly * share, 4))
    const paidUpfront = upfront === 'none' ? 0 : upfront === 'part' ? 0.5 : 1
    const hourlyPrice = Number(printed(effective * (1 - paidUpfront), 4))
    const upfrontPrice = new Decimal(printed(effective, 4)).minus(printed(hourlyPrice, 4)).times(HOURS_A_YEAR * years)
    return { years, upfront, upfrontPrice: decimalText(upfrontPrice), hourlyPrice: printed(hourlyPrice, 4) }
  })
}

type Maker = { provider: string, currency: string, code: string, regions: { id: string, name: string, factor: number }[] }

function cardMaker({ code, regions }: Maker) {
  const prices: PriceLine[] = []
  const short = (text: string) => text.replace(/[^a-z0-9]/gi, '').toUpperCase()
  return {
    prices,
    everywhere(service: string, meter: Meter, variant: string | null, unit: string, price: number, decimals: number, more: Partial<PriceLine> = {}) {
      for (const region of regions) {
        const tiers = (more.tiers ?? [{ from: '0', price: String(price) }]).map(tier => ({ from: tier.from, price: printed(Number(tier.price) * region.factor, decimals) }))
        prices.push({
          sku: `${code}-${short(region.id)}-${short(meter)}${variant ? `-${short(variant)}` : ''}`, service, meter, variant, region: region.id, unit, tiering: 'graduated',
          ...more, tiers, ...(meter === 'server-hour' && { commitments: commitments(Number(tiers[0]!.price)) }),
        })
      }
    },
  }
}

// lines of server sizes: price per vCPU and per GB an hour
const lines = { reed: { gbPerVcpu: 2, vcpu: 0.0181, gb: 0.0044, sizes: [1, 2, 4, 8, 16] }, otter: { gbPerVcpu: 4, vcpu: 0.0192, gb: 0.0048, sizes: [2, 4, 6, 8, 16] }, heron: { gbPerVcpu: 8, vcpu: 0.0205, gb: 0.0052, sizes: [2, 4, 8, 16] } }

function brackwater(): RateCard {
  const regions = [{ id: 'north-fjord', name: 'North Fjord', factor: 1 }, { id: 'low-coast', name: 'Low Coast', factor: 0.96 }, { id: 'east-delta', name: 'East Delta', factor: 1.07 }, { id: 'far-cape', name: 'Far Cape', factor: 1.21 }]
  const card = cardMaker({ provider: 'Brackwater Cloud', currency: 'EUR', code: 'BW', regions })
  const serverSizes = Object.entries(lines).flatMap(([line, { gbPerVcpu, sizes }]) => sizes.map(vcpu => ({ size: `${line}-${vcpu}x${vcpu * gbPerVcpu}`, vcpu, memoryGb: vcpu * gbPerVcpu })))
  for (const { size, vcpu, memoryGb } of serverSizes) {
    const line = lines[size.split('-')[0] as keyof typeof lines]
    card.everywhere('Servers', 'server-hour', size, 'Hours', vcpu * line.vcpu + memoryGb * line.gb, 4)
  }
  for (const size of serverSizes.filter(s => s.vcpu >= 2 && s.vcpu <= 16 && !s.size.startsWith('reed'))) {
    const line = lines[size.size.split('-')[0] as keyof typeof lines]
    card.everywhere('Managed database', 'database-hour', size.size, 'Hours', (size.vcpu * line.vcpu + size.memoryGb * line.gb) * 1.85, 4)
  }
  card.everywhere('Managed database', 'database-gb-month', null, 'GB-Months', 0.125, 4)
  for (const [variant, price] of [['plain', 0.045], ['plain, old', 0.062], ['steady', 0.088], ['swift', 0.132]] as const) card.everywhere('Disks', 'disk-gb-month', variant, 'GB-Months', price, 4)
  card.everywhere('Snapshots', 'snapshot-gb-month', null, 'GB-Months', 0.049, 4)
  card.everywhere('Object storage', 'object-gb-month', 'ready', 'GB-Months', 0, 5, { tiers: [{ from: '0', price: '0.0228' }, { from: '51200', price: '0.0217' }, { from: '512000', price: '0.0206' }] })
  card.everywhere('Object storage', 'object-gb-month', 'cool', 'GB-Months', 0.0124, 5)
  card.everywhere('Object storage', 'object-gb-month', 'deep', 'GB-Months', 0.0036, 5)
  for (const [variant, write, read] of [['ready', 0.0052, 0.00042], ['cool', 0.0096, 0.00095], ['deep', 0.031, 0.0044]] as const) {
    card.everywhere('Object storage', 'object-write-1000', variant, '1000 Requests', write, 6)
    card.everywhere('Object storage', 'object-read-1000', variant, '1000 Requests', read, 6)
  }
  card.everywhere('Outgoing transfer', 'transfer-out-gb', null, 'GB', 0, 4, { tiers: [{ from: '0', price: '0.085' }, { from: '10240', price: '0.071' }, { from: '51200', price: '0.058' }], freeAllowance: '100' })
  card.everywhere('Gateways', 'gateway-hour', null, 'Hours', 0.0525, 4)
  card.everywhere('Gateways', 'gateway-gb', null, 'GB', 0.044, 4)
  card.everywhere('Load balancers', 'load-balancer-hour', null, 'Hours', 0.0245, 4)
  card.everywhere('Log search', 'logs-ingested-gb', null, 'GB', 0.48, 4)
  card.everywhere('Log search', 'logs-kept-gb-month', null, 'GB-Months', 0.029, 4)
  card.everywhere('Log search', 'logs-searched-gb', null, 'GB', 0.0125, 5)
  return { provider: 'Brackwater Cloud', currency: 'EUR', validFrom: '2025-11-01', regions: regions.map(({ id, name }) => ({ id, name })), serverSizes, prices: card.prices }
}

function larkfield(): RateCard {
  const regions = [{ id: 'lk-alpha', name: 'Alpha', factor: 1 }, { id: 'lk-beta', name: 'Beta', factor: 1.04 }]
  const card = cardMaker({ provider: 'Larkfield Compute', currency: 'USD', code: 'LK', regions })
  const names = ['one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine']
  const shape = [[1, 4], [2, 8], [4, 16], [4, 32], [8, 32], [8, 64], [16, 64], [16, 128], [32, 256]] as const
  const serverSizes = names.map((name, i) => ({ size: `slate ${name}`, vcpu: shape[i]![0], memoryGb: shape[i]![1] }))
  for (const { size, vcpu, memoryGb } of serverSizes) card.everywhere('Machines', 'server-hour', size, 'Hours', vcpu * 0.0211 + memoryGb * 0.0053, 4)
  for (const [variant, price] of [['standard', 0.052], ['fast', 0.14]] as const) card.everywhere('Block storage', 'disk-gb-month', variant, 'GB-Months', price, 4)
  card.everywhere('Object store', 'object-gb-month', 'hot', 'GB-Months', 0.0241, 5)
  card.everywhere('Object store', 'object-gb-month', 'cold', 'GB-Months', 0.0102, 5)
  for (const [variant, write, read] of [['hot', 0.0055, 0.0004], ['cold', 0.011, 0.0011]] as const) {
    card.everywhere('Object store', 'object-write-1000', variant, '1000 Requests', write, 6)
    card.everywhere('Object store', 'object-read-1000', variant, '1000 Requests', read, 6)
  }
  card.everywhere('Network out', 'transfer-out-gb', null, 'GB', 0, 4, { tiers: [{ from: '0', price: '0.11' }, { from: '10240', price: '0.08' }], freeAllowance: '200' })
  card.everywhere('Warehouse', 'analytics-scanned-tb', null, 'TB', 5.4, 4)
  return { provider: 'Larkfield Compute', currency: 'USD', validFrom: '2025-11-01', regions: regions.map(({ id, name }) => ({ id, name })), serverSizes, prices: card.prices }
}

export const brackwaterCard = brackwater()
export const larkfieldCard = larkfield()
