import { Decimal } from '../../money/decimal'
import { chargedFor } from '../../ratecard/describe'
import { findPrice, findSize, linesOf } from '../../ratecard/find-price'
import { meterFacts } from '../../ratecard/meters'
import { broughtAlong } from '../../ratecard/own-licence'
import type { PriceLine, RateCard, ServerSize } from '../../ratecard/rate-card'
import { evaluate, input } from '../../working/working'
import { dearestPrice } from '../bill/dearest-price'
import { unitsIn, usesOf, type BilledResource, type PaidUse } from '../bill/billed-resource'
import { atPrice, monthlyUnits, type Change } from '../bill/finding'
import type { Instruction } from '../instruction'
import { diskClass, type DiskClass } from '../measured/disk-class'
import { asOtherDisk, diskInstruction } from '../measured/disk-performance'
import { asOtherSize, databases, machines, type Sized } from '../measured/too-large'
import { givesWords, lessGiven } from './gives'
import { usesPaid, type Offer } from './offer'

/** The other sizes or classes that the region has of what is charged under a line. */
export function otherSizesAndClasses(resource: BilledResource, use: PaidUse, card: RateCard): Offer[] {
  const { line } = use
  if (line.variant === null) return []
  const now = findSize(card, line.variant)
  const others = linesOf(card, line.meter, line.region).filter(
    ({ variant }) => variant !== null && variant !== line.variant && isNear(now, findSize(card, variant)),
  )
  return others.map(other => ({
    key: `variant/${other.variant}`,
    kind: 'size or class' as const,
    to: other.variant!,
    gives: givesWords(other, card),
    ...otherVariant(resource, use, other, card),
  }))
}

/** From half as large to twice: anything beyond is another machine. What has no size is near. */
function isNear(now: ServerSize | undefined, then: ServerSize | undefined): boolean {
  if (!now || !then) return true
  return (['vcpu', 'memoryGb'] as const).every(what => then[what] * 2 >= now[what] && then[what] <= now[what] * 2)
}

type Priced =
  { asks: string[]; changes: Change[]; further: []; lacks: string[]; instruction?: Instruction } | { asks: []; notOffered: string }
const notOffered = (why: string): Priced => ({ asks: [], notOffered: why })

function otherVariant(resource: BilledResource, use: PaidUse, other: PriceLine, card: RateCard) {
  const sized = [machines, databases].find(({ hour }) => hour === use.line.meter)
  const [now, then] = [use.line, other].map(({ variant }) => findSize(card, variant!))
  if (sized && now && then) return otherSize(resource, use, sized, other, { now, then })
  if (use.line.meter === 'disk-gb-month') return otherDisk(resource, use, diskClass(card, other), diskClass(card, use.line))
  return otherClass(resource, use, other, card)
}

function otherSize(
  resource: BilledResource,
  use: PaidUse,
  sized: Sized,
  other: PriceLine,
  sizes: { now: ServerSize; then: ServerSize },
): Priced {
  const { now, then } = sizes
  const systems = usesOf(resource, 'system-vcpu-hour').filter(one => unitsIn(one, 3) > 0n)
  const system = systems.find(({ line }) => then.systems && !then.systems.includes(line!.variant!))
  if (system) return notOffered(`«${then.size}» does not run ${system.line!.variant}`)
  if (then.dedicated === false && usesOf(resource, 'dedicated-vcpu-hour').some(one => unitsIn(one, 3) > 0n))
    return notOffered(`«${then.size}» cannot stand on a dedicated host`)
  const asks = [
    ...(then.architecture !== now.architecture ? [`it runs on ${then.architecture ?? 'another architecture'}`] : []),
    ...(then.vcpu < now.vcpu ? [`${then.vcpu} of ${now.vcpu} vCPU are enough`] : []),
    ...(then.memoryGb < now.memoryGb ? [`${then.memoryGb} of ${now.memoryGb} GB are enough`] : []),
  ]
  return {
    ...{ asks, changes: asOtherSize(resource, use, sized, other, sizes), further: [], lacks: [] },
    instruction: { type: sized.type, deed: 'change size', from: now.size, to: then.size },
  }
}

/** Another class of a disk, with as much performance as it has now: in its price, or bought beside as far as it can be. */
function otherDisk(resource: BilledResource, use: PaidUse, to: DiskClass, now: DiskClass) {
  const has = { iops: hasNow(resource, now, 'iops', 'disk-iops-month'), mbps: hasNow(resource, now, 'mbps', 'disk-throughput-month') }
  const asFar = (what: 'iops' | 'mbps') => (to[what].most.lt(has[what]) ? to[what].most : has[what]).toNumber()
  const needed = { iops: asFar('iops'), mbps: asFar('mbps') }
  const told = usesOf(resource, 'disk-transactions')[0]
  const transactions = told ? monthlyUnits(resource, told) : input('transactions', 0, 'million')
  const asks = [
    ...(to.iops.most.lt(has.iops) ? [`${to.iops.most.toFixed()} of ${has.iops.toFixed()} operations a second are enough`] : []),
    ...(to.mbps.most.lt(has.mbps) ? [`${to.mbps.most.toFixed()} of ${has.mbps.toFixed()} MB a second are enough`] : []),
    ...(to.zones < now.zones ? [`${to.zones === 1 ? 'one zone is' : `${to.zones} zones are`} enough`] : []),
  ]
  const lacks =
    to.transactions && !told
      ? [`transactions, ${dearestPrice(to.transactions)} for each million: the bill does not tell how many there are`]
      : []
  const parts = asOtherDisk(resource, use, to, monthlyUnits(resource, use), { needed, transactions })
  return { asks, ...parts, lacks, instruction: diskInstruction(use.line, to, needed) }
}

/** What a disk has of performance now: what its class includes, and what is bought. */
function hasNow(resource: BilledResource, now: DiskClass, what: 'iops' | 'mbps', meter: string): Decimal {
  const bought = usesOf(resource, meter).filter(one => unitsIn(one, 3) > 0n)
  return bought.reduce((sum, one) => sum.plus(evaluate(monthlyUnits(resource, one)).round(0)), now[what].included)
}

/** Another class of anything else: what is charged beside it is charged as the other class has it. */
function otherClass(resource: BilledResource, use: PaidUse, other: PriceLine, card: RateCard): Priced {
  const { variant, region } = use.line
  const beside = usesPaid(resource, use.currency).filter(one => one.line?.variant === variant && one.line.region === region)
  const changes = beside.map((one): Change => {
    const line = findPrice(card, one.line!.meter, region, other.variant)
    const then =
      line &&
      atPrice(line.variant!, monthlyUnits(resource, one), { price: dearestPrice(line), sku: line.sku, currency: card.currency }, one)
    return { use: one, how: then ? 'cheaper' : 'gone', then: then ?? null }
  })
  const meters = new Set(beside.map(({ line }) => line!.meter))
  const unknown = card.prices.filter(
    line =>
      line.service === other.service &&
      line.variant === other.variant &&
      line.region === region &&
      !meters.has(line.meter) &&
      !findPrice(card, line.meter, region, variant) &&
      new Decimal(dearestPrice(line)).gt(0),
  )
  const lacks = unknown.map(
    line => `${meterFacts(line.meter)?.words ?? line.meter}, ${dearestPrice(line)} per ${line.unit}: the bill does not tell how much`,
  )
  const without = changes.flatMap(({ use: { line }, how }) => (how === 'gone' && chargedFor(line!) === 'existing' ? [line!] : []))
  const asks = [
    ...licenceAsks(use.line, other),
    ...lessGiven(other, use.line),
    ...without.map(line => `it does without «${meterFacts(line.meter)?.words ?? line.meter}»`),
  ]
  return { asks, changes, further: [], lacks }
}

/** Charged for by what runs on it. */
const SYSTEMS: readonly string[] = ['system-vcpu-hour', 'database-engine-vcpu-hour']

/** What has to hold where another system or engine is charged for: what runs can run on it, or its licence is one's own. */
function licenceAsks({ meter, variant }: PriceLine, other: PriceLine): string[] {
  if (!SYSTEMS.includes(meter)) return []
  return other.variant === `${variant}${broughtAlong}`
    ? [`own licences of ${variant} are free for it, and may be used there`]
    : [`it runs on «${other.variant}»`]
}
