import { Decimal, decimalText, zero, type DecimalText } from '../../money/decimal'
import { add, type Working } from '../../working/working'
import type { Slices } from '../../spend/slices'
import { describeLine } from '../../ratecard/describe'
import { amountOf, monthlyCost } from '../bill/finding'
import { paidNow, unitsIn, within, type BilledResource, type PaidUse } from '../bill/billed-resource'
import { commitments } from './commitments'
import { otherwiseKinds, usesPaid, type Offer, type OtherwiseContext, type OtherwiseKind, type PricedOffer } from './offer'
import { otherProviders } from './providers'
import { otherRegions } from './regions'
import { otherSizesAndClasses } from './sizes-and-classes'

/** All that a use could be charged as instead. */
export function offersFor(resource: BilledResource, use: PaidUse, context: OtherwiseContext): Offer[] {
  const card = resource.card!
  return [
    ...otherSizesAndClasses(resource, use, card),
    ...otherRegions(resource, use, card),
    ...commitments(resource, use, card),
    ...otherProviders(resource, use, card, context),
  ]
}

/** A SKU among those that are charged for: how many resources have it, and what it costs a month. */
export type UsedSku = { sku: string; words: string; provider: string; currency: string; resources: number; monthly: DecimalText }

/**
 * What SKUs cost a month that can be priced otherwise: currency by currency, that of most SKUs first, and in each the dearest first;
 * amounts of two currencies are not held against each other.
 */
export function usedSkus(resources: readonly BilledResource[], isAsked: (resource: BilledResource, sku: string) => boolean): UsedSku[] {
  const found = new Map<string, UsedSku & { sum: Decimal }>()
  for (const resource of resources)
    for (const { sku } of resource.uses) {
      if (!isAsked(resource, sku)) continue
      const use = paidNow(resource, sku)
      if (!use) continue
      const { provider, card } = resource
      const key = `${provider}\n${sku}`
      const own = found.get(key) ?? {
        sku,
        words: describeLine(use.line, card!),
        provider,
        currency: use.currency,
        resources: 0,
        monthly: '',
        sum: zero,
      }
      own.resources++
      own.sum = own.sum.plus(amountOf(monthlyCost(resource, use)))
      found.set(key, own)
    }
  const all = [...found.values()]
  const count = (currency: string) => all.filter(one => one.currency === currency).length
  const currencies = [...new Set(all.map(({ currency }) => currency))].sort((a, b) => count(b) - count(a) || (a < b ? -1 : 1))
  const place = new Map(currencies.map((currency, at) => [currency, at]))
  return all
    .sort((a, b) => place.get(a.currency)! - place.get(b.currency)! || b.sum.cmp(a.sum))
    .map(({ sum, ...own }) => ({ ...own, monthly: decimalText(sum) }))
}

/** What one resource would cost a month: now and then, all that is charged for it; with what nobody knows, it is not whole. */
export type ResourceOtherwise = {
  resourceId: string
  resourceName: string
  subAccountName: string
  region: string
  now: DecimalText
  then: DecimalText | null
  /** How the cost is made up. */
  working: Working | null
  asks: string[]
  lacks: string[]
  /** Why it cannot be had. */
  why: string | null
}

/** Something else that resources on a SKU could be charged as, over all that can be. Amounts are a month's, in `currency`. */
export type Way = {
  key: string
  kind: OtherwiseKind
  to: string
  gives: string
  /** What has to hold for any of them. */
  asks: string[]
  /** Resources that it can be had for; what they cost now, and would cost then. */
  resources: number
  now: DecimalText
  then: DecimalText
  /** What its cost lacks, in words; with any, it is compared with nothing. */
  lacks: string[]
  /** Resources that it cannot be had for, and the reasons. */
  without: { resources: number; reasons: string[] }
  /** Resource by resource, of the one that is opened. */
  each: ResourceOtherwise[] | null
}

export type CostOtherwise = {
  sku: string
  words: string
  provider: string
  currency: string
  /** The resources that are charged under it. */
  ids: string[]
  /** How many these are, and what they cost a month with all that is charged for them. */
  resources: number
  now: DecimalText
  /** Of it, under the SKU itself. */
  underSku: DecimalText
  /** Resources that are charged under it and are not priced otherwise, or not all of what they are charged, and why. */
  left: { resourceId: string; resourceName: string; why: string }[]
  ways: Way[]
}

/**
 * What resources on a SKU would cost otherwise, from what they use now, under present discounts at their own provider. Each way is summed
 * over the resources that it can be had for, and held against what these cost now.
 * @param resources of one provider. @param opened the key of the way that is told resource by resource.
 * @returns null where nothing is charged under the SKU that can be priced otherwise.
 */
export function* costOtherwise(
  resources: readonly BilledResource[],
  sku: string,
  context: OtherwiseContext,
  opened: string | null,
): Slices<CostOtherwise | null> {
  const left: CostOtherwise['left'] = []
  const ways = new Map<string, WaySums>()
  let head: { use: PaidUse; resource: BilledResource } | null = null
  const ids: string[] = []
  let [sum, under] = [zero, zero]
  for (const [i, resource] of resources.entries()) {
    if (i % RESOURCES_AT_ONCE === 0) yield
    const use = paidNow(resource, sku)
    if (!use) {
      const why = whyNotPriced(resource, sku)
      if (why) left.push({ resourceId: resource.id, resourceName: resource.name, why })
      continue
    }
    head ??= { use, resource }
    ids.push(resource.id)
    const beside = otherCurrencies(resource, use)
    if (beside.length)
      left.push({
        resourceId: resource.id,
        resourceName: resource.name,
        why: `what is charged in ${beside.join(', ')} is in no amount here`,
      })
    const now = nowOf(resource, use)
    sum = sum.plus(now)
    under = under.plus(amountOf(monthlyCost(resource, use)))
    for (const offer of offersFor(resource, use, context)) {
      const own = ways.get(offer.key) ?? new WaySums(offer, offer.key === opened)
      ways.set(offer.key, own)
      own.add(resource, now, offer, 'notOffered' in offer ? null : costThen(resource, use, offer))
    }
  }
  if (!head) return null
  return {
    ...{ sku, words: describeLine(head.use.line, head.resource.card!), provider: head.resource.provider, currency: head.use.currency },
    ...{ ids, resources: ids.length, now: decimalText(sum), underSku: decimalText(under), left },
    ways: [...ways.values()].sort(byKindAndSaving).map(own => own.way()),
  }
}

/** Kind by kind, what saves most first; what is not whole, or cannot be had, after all others of its kind. */
function byKindAndSaving(a: WaySums, b: WaySums): number {
  const kind = otherwiseKinds.indexOf(a.offer.kind) - otherwiseKinds.indexOf(b.offer.kind)
  return kind || a.rank - b.rank || b.saved.cmp(a.saved)
}

/** What saves most first, by name where they save alike; what cannot be had last. */
function bySaving(a: ResourceOtherwise, b: ResourceOtherwise): number {
  const byName = a.resourceName < b.resourceName ? -1 : 1
  if (a.then === null || b.then === null) return Number(a.then === null) - Number(b.then === null) || byName
  const [first, second] = [a, b].map(({ now, then }) => new Decimal(now).minus(then!)) as [Decimal, Decimal]
  return second.cmp(first) || byName
}

/** So many are priced before others have their turn. */
const RESOURCES_AT_ONCE = 20

/** A way as it is summed up, resource after resource. */
class WaySums {
  readonly #each: ResourceOtherwise[] = []
  readonly #asks = new Set<string>()
  readonly #lacks = new Set<string>()
  readonly #reasons = new Set<string>()
  #had = 0
  #without = 0
  #now = zero
  #then = zero

  constructor(
    readonly offer: Offer,
    readonly isOpened: boolean,
  ) {}

  /** @param working what a resource costs then; null where it cannot be had. */
  add({ id: resourceId, name: resourceName, subAccountName, region }: BilledResource, now: Decimal, offer: Offer, working: Working | null) {
    const [why, lacks] = 'notOffered' in offer ? [offer.notOffered, []] : [null, offer.lacks]
    const then = working && amountOf(working)
    const priced = { now: decimalText(now), then: then && decimalText(then), working }
    if (this.isOpened) this.#each.push({ resourceId, resourceName, subAccountName, region, ...priced, asks: offer.asks, lacks, why })
    if (why !== null) this.#reasons.add(why)
    if (!then) return void this.#without++
    this.#had++
    this.#now = this.#now.plus(now)
    this.#then = this.#then.plus(then)
    offer.asks.forEach(one => this.#asks.add(one))
    lacks.forEach(one => this.#lacks.add(one))
  }

  get saved(): Decimal {
    return this.#now.minus(this.#then)
  }

  /** What can be compared stands before what lacks something, and that before what cannot be had. */
  get rank(): number {
    return this.#had === 0 ? 2 : this.#lacks.size ? 1 : 0
  }

  way(): Way {
    const { key, kind, to, gives } = this.offer
    return {
      ...{ key, kind, to, gives, asks: [...this.#asks], resources: this.#had, lacks: [...this.#lacks] },
      ...{ now: decimalText(this.#now), then: decimalText(this.#then), each: this.isOpened ? this.#each.sort(bySaving) : null },
      without: { resources: this.#without, reasons: [...this.#reasons] },
    }
  }
}

const nowOf = (resource: BilledResource, { currency }: PaidUse): Decimal =>
  usesPaid(resource, currency).reduce((sum, use) => sum.plus(amountOf(monthlyCost(resource, use))), zero)

/** All that is charged for a resource with an offer: what changes as it would be, the rest as it is. */
function costThen(resource: BilledResource, { currency }: PaidUse, { to, changes, further }: PricedOffer): Working {
  const changed = new Set(changes.map(({ use }) => `${use.sku}\n${use.unit}`))
  const stays = usesPaid(resource, currency).filter(({ sku, unit }) => !changed.has(`${sku}\n${unit}`))
  return add(to, [...changes.flatMap(({ then }) => (then ? [then] : [])), ...further, ...stays.map(use => monthlyCost(resource, use))])
}

const otherCurrencies = ({ uses }: BilledResource, { currency }: PaidUse): string[] => [
  ...new Set(uses.filter(use => use.currency !== currency && within(use.cost, 30) !== 0n).map(use => use.currency)),
]

function whyNotPriced({ uses, card }: BilledResource, sku: string): string | null {
  const use = uses.find(one => one.sku === sku)
  if (!use || within(use.quantity, 30) + within(use.committedQuantity, 30) === 0n) return null
  if (!use.line) return 'the SKU is not on the rate card'
  if (use.currency !== card?.currency) return `it is charged in ${use.currency}, the rate card is in ${card?.currency ?? 'none'}`
  if (unitsIn(use, 3) === 0n) return 'it has not been charged for the last three days'
  return within(use.cost, 30) <= 0n ? 'commitments pay all of it' : null
}
