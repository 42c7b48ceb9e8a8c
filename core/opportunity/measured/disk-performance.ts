import { Decimal } from '../../money/decimal'
import { highest, measuredHours, total, type Hourly } from '../../measured/hourly'
import type { MetricName } from '../../measured/metrics'
import type { PriceLine, RateCard } from '../../ratecard/rate-card'
import { ESTIMATE_MONTH_HOURS } from '../../time/day'
import { evaluate, input, type Working } from '../../working/working'
import { dearestPrice } from '../bill/dearest-price'
import { paidUse, usesOf, within, type BilledResource, type BilledUse, type PaidUse } from '../bill/billed-resource'
import { atPrice, findingOf, monthlyUnits, type BillFinding, type Change } from '../bill/finding'
import type { Instruction } from '../instruction'
import type { Settings } from '../detector'
import { carries, crossing, diskClass, diskClasses, diskCost, toBuy, type DiskClass, type Performance } from './disk-class'
import { measuredSeries, told } from './measured-series'

/** What is charged beside the GB of a disk. */
const bought = ['disk-iops-month', 'disk-throughput-month', 'disk-transactions'] as const
const SECONDS_AN_HOUR = 3600

/** A disk of one class that is paid for; null for what is none. */
export const diskUse = (resource: BilledResource) => paidUse(resource, 'disk-gb-month')

/** What was measured, and what has to be carried: the highest of all hours with headroom above it. */
type Measured = { operations: Hourly; throughput: Hourly; needed: Performance; millions: Decimal }

/**
 * The cheapest way to have what a disk was measured to give at most, with headroom: every class that carries it in as many zones, with what
 * has to be bought beside, is priced. Transactions are reckoned as if each hour had gone on at its highest.
 */
export function cheaperPerformance(
  resource: BilledResource,
  settings: Settings,
  measured: (metric: MetricName) => Hourly,
  detector: string,
): BillFinding | null {
  const use = diskUse(resource)
  if (!use) return null
  const { card } = resource as { card: RateCard }
  const own = measuredOf(measured('operations'), measured('throughput'), settings.headroom!)
  const now = diskClass(card, use.line)
  const gb = monthlyUnits(resource, use)
  const amounts = { gb: evaluate(gb), millions: own.millions }
  const priced = diskClasses(card, use.line.region)
    .filter(one => one.zones >= now.zones && carries(one, own.needed))
    .map(one => ({ one, cost: diskCost(one, amounts, own.needed) }))
    .sort((a, b) => a.cost.cmp(b.cost) || (a.one.line.variant! < b.one.line.variant! ? -1 : 1))
  const [best, next] = priced
  if (!best) return null
  const transactions = input('transactions, at the highest of each hour', own.millions, 'million')
  const parts = asOtherDisk(resource, use, best.one, gb, { needed: own.needed, transactions })
  const finding = findingOf(
    resource,
    parts.changes,
    {
      ...{ detector, of: use.sku, risk: 'little', minutesOfWork: 20, series: [] },
      instruction: diskInstruction(use.line, best.one, own.needed),
      title: titleOf(resource.name, now, best.one),
      measured: [
        measuredSeries('operations', own.operations, {
          threshold: { value: told(own.needed.iops), label: 'the line is the highest hour with headroom' },
          said: `${told(highest(own.operations.values))} operations a second at most. ${comparison(priced, card)}${crossed(best.one, next?.one, amounts, own.needed)}`,
        }),
        measuredSeries('throughput', own.throughput, {
          threshold: { value: told(own.needed.mbps), label: 'the line is the highest hour with headroom' },
          said: `${told(highest(own.throughput.values))} MB a second at most.`,
        }),
      ],
    },
    parts.further,
  )
  return finding && savesEnough(finding, settings.saved!) ? finding : null
}

/** What a disk is told to become of another class, with the performance that is then bought beside it. */
export function diskInstruction(now: PriceLine, { line, iops, mbps }: DiskClass, needed: Performance): Instruction {
  const buys = (of: DiskClass['iops'], amount: number) => (of.price ? toBuy(of, amount).toFixed() : undefined)
  return {
    ...{ type: 'disk', deed: 'change class', from: now.variant!, to: line.variant! },
    ...{ iops: buys(iops, needed.iops), mbps: buys(mbps, needed.mbps) },
  }
}

const savesEnough = ({ monthlySaving, effects }: BillFinding, percent: number): boolean =>
  new Decimal(monthlySaving).times(100).gte(effects.reduce((sum, { now }) => sum.plus(now), new Decimal(0)).times(percent))

function measuredOf(operations: Hourly, throughput: Hourly, headroom: number): Measured {
  const needs = (hourly: Hourly) => (highest(hourly.values) * (100 + headroom)) / 100
  const millions = new Decimal(told(total(operations.values)))
    .times(SECONDS_AN_HOUR)
    .times(ESTIMATE_MONTH_HOURS)
    .div(measuredHours(operations))
    .div(1e6)
  return { operations, throughput, needed: { iops: Math.ceil(needs(operations)), mbps: Math.ceil(needs(throughput)) }, millions }
}

/**
 * What a class would cost in place of what is charged now, use by use, and what would come to it.
 * @param gb kept, a month. @param asked what it has to give, and the millions of transactions of a month.
 */
export function asOtherDisk(
  resource: BilledResource,
  use: PaidUse,
  to: DiskClass,
  gb: Working,
  { needed, transactions }: { needed: Performance; transactions: Working },
): { changes: Change[]; further: Working[] } {
  const { currency } = use
  const isSame = to.line.variant === use.line.variant
  const at = (line: PriceLine, label: string, units: Working, like: BilledUse) =>
    atPrice(label, units, { price: dearestPrice(line), sku: line.sku, currency }, like)
  const units = {
    'disk-iops-month': { line: to.iops.price, units: input('operations to buy', toBuy(to.iops, needed.iops), 'IOPS') },
    'disk-throughput-month': { line: to.mbps.price, units: input('throughput to buy', toBuy(to.mbps, needed.mbps), 'MB/s') },
    'disk-transactions': { line: to.transactions, units: transactions },
  }
  const changes: Change[] = isSame ? [] : [{ use, how: 'cheaper', then: at(to.line, `kept «${to.line.variant}»`, gb, use) }]
  const further: Working[] = []
  for (const meter of bought) {
    const { line, units: needs } = units[meter]
    const then = (like: BilledUse) => (line && evaluate(needs).gt(0) ? at(line, needs.label, needs, like) : null)
    const own = usesOf(resource, meter).filter(one => one.currency === currency && within(one.cost, 30) > 0n)
    // what is charged by use stays as it is where the class does
    if (isSame && meter === 'disk-transactions') continue
    own.forEach((one, i) => changes.push({ use: one, how: isSame ? 'less' : 'cheaper', then: i === 0 ? then(one) : null }))
    const added = own.length ? null : then(use)
    if (added) further.push(added)
  }
  return { changes, further }
}

const titleOf = (name: string, now: DiskClass, best: DiskClass): string =>
  best.line.variant === now.line.variant
    ? `${name} has more performance bought than it uses`
    : `${name} would do with «${best.line.variant}» instead of «${now.line.variant}»`

/** What each class that carries it would cost. */
const comparison = (priced: readonly { one: DiskClass; cost: Decimal }[], { currency }: RateCard): string =>
  `A month at list prices: ${priced.map(({ one, cost }) => `«${one.line.variant}» ${cost.toFixed(2)} ${currency}`).join(', ')}.`

function crossed(best: DiskClass, next: DiskClass | undefined, use: { gb: Decimal; millions: Decimal }, needed: Performance): string {
  const at = next && crossing(best, next, use, needed)
  if (at) return ` From ${at.round(0, 3).toFixed(0)} operations a second on, «${next.line.variant}» costs less.`
  return ` It carries up to ${best.iops.most.toFixed()} operations a second.`
}
