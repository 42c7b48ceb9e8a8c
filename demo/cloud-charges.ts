import { usualPayment } from '../core/ratecard/earlier-words'
import { Decimal, decimalText } from '../core/money/decimal'
import { meterFacts } from '../core/ratecard/meters'
import { findPrice } from '../core/ratecard/find-price'
import type { Meter, PriceLine, RateCard } from '../core/ratecard/rate-card'
import { addDays, daysBetween, monthEnd, monthStart, type Day, type Month } from '../core/time/day'
import { makeCharge, type FileCharge } from './focus-file'
import { coveredServers, runsOn, storedGb, type CloudResource, type Use } from './inventory'
import {
  demandStudy,
  expensiveTuesday,
  idleGateways,
  recurringCommitment,
  restatedMonth,
  sponsorCredit,
  taggingCampaign,
  upfrontPurchase,
} from './planted'
import { wobble } from './random'
import { traffic } from './traffic'

/** A provider as it stands in its files. */
export type Account = {
  provider: string
  billingAccountId: string
  billingAccountName: string
  card: RateCard
  /** Prices that begin with a month that is still to come. */
  later?: RateCard
}

const categoryOf: Record<string, string> = {
  Servers: 'Compute',
  Machines: 'Compute',
  'Managed database': 'Databases',
  Disks: 'Storage',
  'Block storage': 'Storage',
  Snapshots: 'Storage',
  'Object storage': 'Storage',
  'Object store': 'Storage',
  'Outgoing transfer': 'Networking',
  'Network out': 'Networking',
  Gateways: 'Networking',
  'Load balancers': 'Networking',
  'Log search': 'Management and Governance',
  Recovery: 'Management and Governance',
  Warehouse: 'Analytics',
}
const wordsOf = (line: PriceLine) => meterFacts(line.meter)!.words

type Part = { meter: Meter; variant: string | null; quantity: number | Decimal }

/** GB-months of one day: the month's days add up to the GB exactly when the GB stay the same. */
function gbMonths(gb: number, day: Day, month: Month): Decimal {
  const days = daysBetween(monthStart(month), monthEnd(month))
  const microsUpTo = (count: number) => Math.round((gb * 1_000_000 * count) / days)
  const index = daysBetween(monthStart(month), day)
  return new Decimal((microsUpTo(index + 1) - microsUpTo(index)) / 1_000_000)
}

const rounded = (value: number) => Math.round(value * 1000) / 1000
const scaleOf = (resource: CloudResource, day: Day) =>
  (resource.seasonal ? traffic(day) : 0.9 + 0.1 * traffic(day)) * wobble(0.05, resource.id, day)

/** GB that pass a gateway on a day: what is billed and what the stand-in cloud measures. */
export function passedGb(resource: CloudResource, use: Extract<Use, { kind: 'gateway' }>, day: Day): number {
  const idle = idleGateways.find(gateway => gateway.name === resource.name)
  return idle && day >= idle.rigRemoved ? 0 : rounded(use.gbPerDay * scaleOf(resource, day))
}

function partsOf(resource: CloudResource, use: Use, day: Day, month: Month, hours: number): Part[] {
  const scale = scaleOf(resource, day)
  switch (use.kind) {
    case 'server':
      return [{ meter: 'server-hour', variant: use.size, quantity: hours }]
    case 'disk':
      return [{ meter: 'disk-gb-month', variant: use.variant, quantity: gbMonths(use.gb, day, month) }]
    case 'snapshot':
      return [{ meter: 'snapshot-gb-month', variant: null, quantity: gbMonths(storedGb(use, day, resource.since), day, month) }]
    case 'load balancer':
      return [{ meter: 'load-balancer-hour', variant: null, quantity: hours }]
    case 'transfer':
      return [{ meter: 'transfer-out-gb', variant: null, quantity: rounded(use.gbPerDay * scale) }]
    case 'recovery':
      return [{ meter: 'recovery-server', variant: null, quantity: gbMonths(use.servers, day, month) }]
    case 'warehouse':
      return [{ meter: 'analytics-scanned-tb', variant: null, quantity: rounded(use.tbPerDay * scale) }]
    case 'database':
      return [
        ...(use.stopped && day >= use.stopped ? [] : [{ meter: 'database-hour', variant: use.size, quantity: hours } as Part]),
        { meter: 'database-gb-month', variant: null, quantity: gbMonths(use.gb, day, month) },
      ]
    case 'objects':
      return [
        { meter: 'object-gb-month', variant: use.variant, quantity: gbMonths(storedGb(use, day), day, month) },
        { meter: 'object-write-1000', variant: use.variant, quantity: rounded((use.writes1000 * scale) / 10) },
        { meter: 'object-read-1000', variant: use.variant, quantity: rounded((use.reads1000 * scale) / 10) },
      ]
    case 'gateway': {
      const passed = passedGb(resource, use, day)
      return [
        { meter: 'gateway-hour', variant: null, quantity: hours },
        ...(passed ? [{ meter: 'gateway-gb', variant: null, quantity: passed } as Part] : []),
      ]
    }
    case 'logs': {
      const searched =
        resource.name === expensiveTuesday.resource && day === expensiveTuesday.day ? expensiveTuesday.gb : rounded(use.searchedGb * scale)
      return [
        { meter: 'logs-ingested-gb', variant: null, quantity: rounded(use.ingestedGb * scale) },
        { meter: 'logs-kept-gb-month', variant: null, quantity: gbMonths(use.keptGb, day, month) },
        { meter: 'logs-searched-gb', variant: null, quantity: searched },
      ]
    }
  }
}

/** A resource taken away on a day is charged for the hours it still existed. */
export type Deletions = Map<string, { day: Day; hour: number }>
/** What a resource is from the day after on: changes of class or size, oldest first. */
export type Changes = Map<string, { day: Day; to: string }[]>

/** Hours in which a resource runs on a day, where it stands still in some. */
export type RunningHours = (id: string, day: Day) => number
/** What has been done to resources, as far as the bill shows it. */
export type Done = {
  deletions?: Deletions
  changes?: Changes
  runningHours?: RunningHours
  /** Tags that were set on resources: on charges from the day after on. */
  tags?: Map<string, { day: Day; key: string; value: string }[]>
  /** What was made beside the inventory. */
  made?: readonly CloudResource[]
}
/** Meters that count only while a resource runs. */
const RUNNING: ReadonlySet<Meter> = new Set<Meter>(['server-hour', 'database-hour'])

/** What a resource is used as on a day. */
function useOn({ id, use }: CloudResource, day: Day, changes: Changes): Use {
  const to = changes.get(id)?.findLast(change => change.day < day)?.to
  if (to === undefined) return use
  return 'variant' in use ? { ...use, variant: to } : 'size' in use ? { ...use, size: to } : use
}

/**
 * The charges of a billing month, day by day: what the inventory ran, priced from the rate card for the real hours of the month.
 * @param until first day that is not billed yet.
 */
export function* cloudCharges(
  account: Account,
  inventory: CloudResource[],
  month: Month,
  until: Day,
  { deletions = new Map(), changes = new Map(), tags = new Map(), runningHours }: Done = {},
): Generator<FileCharge> {
  const card = account.later && account.later.validFrom <= monthStart(month) ? account.later : account.card
  const prices = new Map<string, PriceLine>()
  const price = (meter: Meter, region: string, variant: string | null): PriceLine => {
    const key = `${meter} ${region} ${variant}`
    // what is not offered any more goes on at its last price where it runs
    const found = prices.get(key) ?? findPrice(card, meter, region, variant) ?? findPrice(account.card, meter, region, variant)
    if (!found) throw new Error(`${account.provider} has no price for ${key}`)
    prices.set(key, found)
    return found
  }
  const isBrackwater = account.provider === 'Brackwater Cloud'
  const monthly = isBrackwater
    ? coveredServers(inventory, recurringCommitment.size, recurringCommitment.region, recurringCommitment.count)
    : new Set<string>()
  const paid = isBrackwater
    ? coveredServers(inventory, upfrontPurchase.size, upfrontPurchase.region, upfrontPurchase.count)
    : new Set<string>()
  const drawnByTier = new Map<string, Decimal>()
  const credits = new Map<Day, Decimal>()
  const ingestedSums: FileCharge[] = []

  for (let day = monthStart(month); day < monthEnd(month) && day < until; day = addDays(day, 1)) {
    const base = dayBase(account, month, day)
    let onMonthly = 0
    for (const resource of inventory) {
      if (!runsOn(resource, day)) continue
      const deleted = deletions.get(resource.id)
      if (deleted && day > deleted.day) continue
      const hours = deleted && deleted.day === day ? deleted.hour : 24
      if (hours === 0) continue
      const of = resourceColumns(resource, day, card, tags)
      for (const whole of partsOf(resource, useOn(resource, day, changes), day, month, hours)) {
        const running = runningHours && RUNNING.has(whole.meter) ? Math.min(hours, runningHours(resource.id, day)) : hours
        if (running === 0) continue
        const part = running < hours ? { ...whole, quantity: running } : whole
        const line = price(part.meter, resource.region, part.variant)
        for (const { quantity, unitPrice } of byTier(line, new Decimal(part.quantity), drawnByTier, resource.region)) {
          const charge = makeCharge(base, of, usage(line, quantity, unitPrice, resource.type), details(line, card))
          if (isHourly(resource, part.meter, month)) {
            yield* byHour(charge, day, quantity, unitPrice)
            continue
          }
          if (part.meter === 'server-hour' && paid.has(resource.id) && day >= upfrontPurchase.day)
            Object.assign(charge, coveredBy(upfrontPurchase.id, 'Database servers, one year, paid upfront', line, 1, 'all', quantity))
          else if (
            part.meter === 'server-hour' &&
            monthly.has(resource.id) &&
            day >= recurringCommitment.start &&
            (day < recurringCommitment.usedSince || onMonthly < recurringCommitment.used)
          ) {
            onMonthly++
            Object.assign(charge, coveredBy(recurringCommitment.id, 'Steady servers, one year', line, 1, 'none', quantity))
          }
          if (resource.account === sponsorCredit.account) credits.set(day, (credits.get(day) ?? new Decimal(0)).plus(charge.BilledCost!))
          if (isBrackwater && month === restatedMonth.billedIn && day.endsWith('-09') && part.meter === 'logs-ingested-gb')
            ingestedSums.push(charge)
          yield charge
        }
      }
    }
    if (isBrackwater && day >= recurringCommitment.start)
      yield* recurringCharges(base, price('server-hour', recurringCommitment.region, recurringCommitment.size), onMonthly)
    if (isBrackwater && day === upfrontPurchase.day)
      yield upfrontCharge(base, price('server-hour', upfrontPurchase.region, upfrontPurchase.size))
    const used = credits.get(day)
    if (used)
      yield oneAmount(
        {
          ...base,
          ...subAccount(sponsorCredit.account),
          ChargeCategory: 'Credit',
          ChargeDescription: sponsorCredit.description,
          ChargeFrequency: 'Recurring',
          ServiceCategory: 'Other',
          ServiceName: 'Credits',
        },
        used.times(-sponsorCredit.share).round(6),
      )
  }
  // September's ingestion had been billed a quarter too dear: October's bill corrects each log group
  for (const charge of ingestedSums) {
    const start = `${restatedMonth.corrected}-15`
    yield oneAmount(
      {
        ...charge,
        ChargePeriodStart: `${start}T00:00:00Z`,
        ChargePeriodEnd: `${addDays(start, 1)}T00:00:00Z`,
        ChargeClass: 'Correction',
        ChargeFrequency: 'One-Time',
        PricingCategory: '',
        PricingQuantity: '',
        PricingUnit: '',
        ConsumedQuantity: '',
        ConsumedUnit: '',
        ListUnitPrice: '',
        ContractedUnitPrice: '',
        ChargeDescription: 'Log ingestion in September billed at the wrong rate',
      },
      new Decimal(charge.BilledCost!).times(-30 * restatedMonth.share).round(6),
    )
  }
}

function dayBase(account: Account, month: Month, day: Day): FileCharge {
  return {
    BillingPeriodStart: `${monthStart(month)}T00:00:00Z`,
    BillingPeriodEnd: `${monthEnd(month)}T00:00:00Z`,
    ChargePeriodStart: `${day}T00:00:00Z`,
    ChargePeriodEnd: `${addDays(day, 1)}T00:00:00Z`,
    BillingAccountId: account.billingAccountId,
    BillingAccountName: account.billingAccountName,
    BillingCurrency: account.card.currency,
    InvoiceIssuerName: account.provider,
    ProviderName: account.provider,
    PublisherName: account.provider,
    InvoiceId: `${account.billingAccountId}-${month}`,
  }
}

const subAccount = (name: string): FileCharge => ({ SubAccountId: `acc-${name}`, SubAccountName: name })

function resourceColumns(resource: CloudResource, day: Day, card: RateCard, set: NonNullable<Done['tags']>): FileCharge {
  const since = (set.get(resource.id) ?? []).flatMap(tag => (tag.day < day ? [[tag.key, tag.value] as const] : []))
  const own = { ...resource.tags, ...Object.fromEntries(since) }
  const tags = day >= taggingCampaign && Object.keys(own).length ? JSON.stringify(own) : ''
  return {
    ...subAccount(resource.account),
    ResourceId: resource.id,
    ResourceName: resource.name,
    ResourceType: resource.type,
    RegionId: resource.region,
    RegionName: card.regions.find(region => region.id === resource.region)!.name,
    Tags: tags,
    x_Container: container(resource),
    x_CreatedBy: resource.createdBy ?? '',
    x_Protects: resource.protects ?? '',
    x_ProjectCode:
      resource.product === 'demand-study' || resource.account === demandStudy.account
        ? 'SK-TRIAL'
        : `SK-${resource.product.slice(0, 3).toUpperCase()}`,
  }
}

/** The container of a resource at the cloud: the part of the company, the product, the environment. */
function container({ product, environment, account }: CloudResource): string {
  const part = account.startsWith('live-')
    ? account.slice(5)
    : account.startsWith('lk-')
      ? 'insight'
      : (({ 'data-lake': 'insight', rehearsal: 'passenger', office: 'office' } as Record<string, string>)[account] ?? 'shared')
  return `${part}/${product}/${environment}`
}

/** What a price is for, as FOCUS writes it: machine size and family, processors and memory, operating system, engine. */
function details(line: PriceLine, card: RateCard): FileCharge {
  if (line.meter !== 'server-hour' && line.meter !== 'database-hour')
    return line.variant ? { SkuPriceDetails: JSON.stringify({ StorageClass: line.variant }) } : {}
  const size = card.serverSizes.find(s => s.size === line.variant)
  return {
    SkuPriceDetails: JSON.stringify({
      CoreCount: size?.vcpu,
      InstanceSeries: line.variant?.split(/[- ]/)[0],
      InstanceType: line.variant,
      MemorySize: size?.memoryGb,
      ...(line.meter === 'server-hour' ? { OperatingSystem: 'Linux' } : { x_Engine: 'relational' }),
    }),
  }
}

/** One log group is charged by the hour: what it searched on the expensive Tuesday shows when it happened. */
function isHourly(resource: CloudResource, meter: Meter, month: Month): boolean {
  return resource.name === expensiveTuesday.resource && meter === 'logs-searched-gb' && month === expensiveTuesday.day.slice(0, 7)
}

/** The charge of a day hour by hour: on the Tuesday in the afternoon, else through the working day. Quantities add up to the day's. */
function* byHour(charge: FileCharge, day: Day, quantity: Decimal, unitPrice: string): Generator<FileCharge> {
  const [from, to] = day === expensiveTuesday.day ? [expensiveTuesday.from, expensiveTuesday.to] : [8, 18]
  let left = quantity
  for (let hour = from; hour < to; hour++) {
    const own = hour === to - 1 ? left : quantity.div(to - from).round(3)
    left = left.minus(own)
    const time = (h: number) => `${day}T${String(h).padStart(2, '0')}:00:00Z`
    const units = decimalText(own)
    yield oneAmount(
      { ...charge, ChargePeriodStart: time(hour), ChargePeriodEnd: time(hour + 1), PricingQuantity: units, ConsumedQuantity: units },
      own.times(unitPrice),
    )
  }
}

/** Cuts a quantity where the month's total passes from one tier into the next. Tiers are counted per line over all resources. */
function byTier(
  line: PriceLine,
  quantity: Decimal,
  drawn: Map<string, Decimal>,
  region: string,
): { quantity: Decimal; unitPrice: string }[] {
  if (line.tiers.length === 1) return [{ quantity, unitPrice: line.tiers[0]!.price }]
  const key = `${line.meter} ${line.variant} ${region}`
  let from = drawn.get(key) ?? new Decimal(0)
  const to = from.plus(quantity)
  drawn.set(key, to)
  const cuts: { quantity: Decimal; unitPrice: string }[] = []
  line.tiers.forEach((tier, i) => {
    const end = line.tiers[i + 1] ? new Decimal(line.tiers[i + 1]!.from) : null
    const upper = end && end.lt(to) ? end : to
    if (upper.gt(from) && from.gte(tier.from)) {
      cuts.push({ quantity: upper.minus(from), unitPrice: tier.price })
      from = upper
    }
  })
  return cuts
}

function usage(line: PriceLine, quantity: Decimal, unitPrice: string, what: string): FileCharge {
  const amount = decimalText(quantity.times(unitPrice))
  const units = decimalText(quantity)
  return {
    ServiceCategory: categoryOf[line.service]!,
    ServiceName: line.service,
    SkuId: line.sku,
    SkuMeter: wordsOf(line),
    SkuPriceId: `${line.sku}/${unitPrice}`,
    ChargeCategory: 'Usage',
    ChargeFrequency: 'Usage-Based',
    ChargeDescription: `${what}${line.variant ? ` ${line.variant}` : ''}, ${wordsOf(line)}`,
    PricingCategory: 'Standard',
    PricingQuantity: units,
    PricingUnit: line.unit,
    ConsumedQuantity: units,
    ConsumedUnit: line.unit,
    ListUnitPrice: unitPrice,
    ListCost: amount,
    ContractedUnitPrice: unitPrice,
    ContractedCost: amount,
    BilledCost: amount,
    EffectiveCost: amount,
  }
}

const terms = (line: PriceLine, years: 1 | 3, upfront: 'none' | 'part' | 'all') =>
  line.commitments!.find(c => c.years === years && c.paid === usualPayment(upfront))!

/** What an hour under the commitment costs, its upfront spread over the hours of the term. */
function effectiveHour(line: PriceLine, years: 1 | 3, upfront: 'none' | 'all'): Decimal {
  const { hourlyPrice, upfrontPrice } = terms(line, years, upfront)
  return new Decimal(upfrontPrice).div(8760 * years).plus(hourlyPrice)
}

const commitmentColumns = (id: string, name: string): FileCharge => ({
  CommitmentDiscountCategory: 'Usage',
  CommitmentDiscountId: id,
  CommitmentDiscountName: name,
  CommitmentDiscountType: 'one year',
})

/** Usage that a commitment covers: nothing is billed for it again, its effective cost is the commitment's. */
function coveredBy(id: string, name: string, line: PriceLine, years: 1 | 3, upfront: 'none' | 'all', quantity: Decimal): FileCharge {
  const hour = effectiveHour(line, years, upfront)
  const amount = decimalText(quantity.times(hour))
  return {
    ...commitmentColumns(id, name),
    CommitmentDiscountStatus: 'Used',
    PricingCategory: 'Committed',
    ContractedUnitPrice: decimalText(hour),
    ContractedCost: amount,
    BilledCost: '0',
    EffectiveCost: amount,
  }
}

const HOURS = new Decimal(24)

function* recurringCharges(base: FileCharge, line: PriceLine, used: number): Generator<FileCharge> {
  const hour = effectiveHour(line, 1, 'none')
  const { count, id } = recurringCommitment
  const of = {
    ...base,
    ...subAccount('shared-platform'),
    ...commitmentColumns(id, 'Steady servers, one year'),
    RegionId: line.region,
    ServiceCategory: 'Compute',
    ServiceName: line.service,
    SkuId: `${line.sku}-1Y`,
    SkuMeter: 'committed, hours',
  }
  const quantity = HOURS.times(count)
  yield {
    ...oneAmount(
      {
        ...of,
        ChargeCategory: 'Purchase',
        ChargeFrequency: 'Recurring',
        ChargeDescription: `${count} × ${line.variant}, one year, paid monthly`,
        PricingQuantity: decimalText(quantity),
        PricingUnit: 'Hours',
        ContractedUnitPrice: decimalText(hour),
        SkuPriceId: `${line.sku}-1Y/none`,
      },
      quantity.times(hour),
    ),
    EffectiveCost: '0',
  }
  const unused = HOURS.times(count - used)
  if (unused.gt(0)) {
    const amount = decimalText(unused.times(hour))
    yield {
      ...oneAmount(
        {
          ...of,
          CommitmentDiscountStatus: 'Unused',
          ChargeCategory: 'Usage',
          ChargeFrequency: 'Usage-Based',
          ChargeDescription: 'Committed hours that nothing used',
          PricingCategory: 'Committed',
          PricingQuantity: decimalText(unused),
          PricingUnit: 'Hours',
          ContractedUnitPrice: decimalText(hour),
          SkuPriceId: `${line.sku}-1Y/none`,
        },
        new Decimal(0),
      ),
      EffectiveCost: amount,
    }
  }
}

function upfrontCharge(base: FileCharge, line: PriceLine): FileCharge {
  const { count, id } = upfrontPurchase
  const { upfrontPrice } = terms(line, 1, 'all')
  const amount = new Decimal(upfrontPrice).times(count)
  return {
    ...oneAmount(
      {
        ...base,
        ...subAccount('shared-platform'),
        ...commitmentColumns(id, 'Database servers, one year, paid upfront'),
        RegionId: line.region,
        ServiceCategory: 'Compute',
        ServiceName: line.service,
        SkuId: `${line.sku}-1Y`,
        SkuMeter: 'committed, hours',
        SkuPriceId: `${line.sku}-1Y/all`,
        ChargeCategory: 'Purchase',
        ChargeFrequency: 'One-Time',
        ChargeDescription: `${count} × ${line.variant}, one year, paid upfront`,
        PricingQuantity: String(count),
        PricingUnit: 'Commitments',
        ContractedUnitPrice: upfrontPrice,
      },
      amount,
    ),
    EffectiveCost: '0',
  }
}

/** A charge whose four costs are one amount. */
export function oneAmount(charge: FileCharge, amount: Decimal): FileCharge {
  const text = decimalText(amount)
  return { ...charge, BilledCost: text, EffectiveCost: text, ListCost: text, ContractedCost: text }
}
