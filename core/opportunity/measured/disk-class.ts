import { Decimal, zero } from '../../money/decimal'
import { findPrice, linesOf } from '../../ratecard/find-price'
import type { PriceLine, RateCard } from '../../ratecard/rate-card'
import { dearestPrice } from '../bill/dearest-price'

/** What a disk has to give: operations and MB a second. */
export type Performance = { iops: number; mbps: number }

/** What of performance a class has in its price, has at most, and asks for each that is bought beside; null where none can be. */
type Offered = { included: Decimal; most: Decimal; price: PriceLine | null }
/** A class of disks as it is priced in a region. */
export type DiskClass = { line: PriceLine; iops: Offered; mbps: Offered; transactions: PriceLine | null; zones: number }

/** The classes of disks of a region. */
export const diskClasses = (card: RateCard, region: string): DiskClass[] =>
  linesOf(card, 'disk-gb-month', region).map(line => diskClass(card, line))

export function diskClass(card: RateCard, line: PriceLine): DiskClass {
  const { region, variant, includes } = line
  const offered = (what: 'iops' | 'mbps', meter: string): Offered => {
    const price = findPrice(card, meter, region, variant) ?? null
    const included = new Decimal(includes?.[what] ?? 0)
    return { included, price, most: new Decimal((price && includes?.[`${what}Most`]) || included) }
  }
  return {
    line,
    iops: offered('iops', 'disk-iops-month'),
    mbps: offered('mbps', 'disk-throughput-month'),
    transactions: findPrice(card, 'disk-transactions', region, variant) ?? null,
    zones: Number(includes?.zones ?? 1),
  }
}

/** Whether a class can be had with so much. */
export const carries = ({ iops, mbps }: DiskClass, needed: Performance): boolean => iops.most.gte(needed.iops) && mbps.most.gte(needed.mbps)

/** What is to be bought beside the price of a class. */
export const toBuy = ({ included }: Offered, needed: number): Decimal => {
  const beyond = new Decimal(needed).minus(included)
  return beyond.gt(0) ? beyond : zero
}

/**
 * What a disk of a class costs a month at list prices.
 * @param use GB, and millions of transactions in a month.
 */
export function diskCost(own: DiskClass, use: { gb: Decimal; millions: Decimal }, needed: Performance): Decimal {
  const bought = (of: Offered, amount: number) => (of.price ? toBuy(of, amount).times(dearestPrice(of.price)) : zero)
  return use.gb
    .times(dearestPrice(own.line))
    .plus(bought(own.iops, needed.iops))
    .plus(bought(own.mbps, needed.mbps))
    .plus(own.transactions ? use.millions.times(dearestPrice(own.transactions)) : zero)
}

/**
 * From how many operations a second on another class costs less than the one that costs least at what is needed; between the operations at
 * which a class begins to charge for more, costs are straight lines. Null where it never does, as far as both can go.
 */
export function crossing(least: DiskClass, other: DiskClass, use: { gb: Decimal; millions: Decimal }, needed: Performance): Decimal | null {
  const end = least.iops.most.lt(other.iops.most) ? least.iops.most : other.iops.most
  const begin = new Decimal(needed.iops)
  const bends = [least.iops.included, other.iops.included].filter(at => at.gt(begin) && at.lt(end))
  const points = [begin, ...bends.sort((a, b) => a.cmp(b)), end]
  const dearer = (at: Decimal) => {
    const needs = { ...needed, iops: at.toNumber() }
    return diskCost(other, use, needs).minus(diskCost(least, use, needs))
  }
  for (let i = 0; i + 1 < points.length; i++) {
    const [from, to] = [points[i]!, points[i + 1]!]
    const [before, after] = [dearer(from), dearer(to)]
    if (before.gte(0) && after.lt(0)) return from.plus(to.minus(from).times(before).div(before.minus(after)))
  }
  return null
}
