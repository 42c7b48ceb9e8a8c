import type { Charged } from '../../ratecard/meters'
import type { PriceLine, RateCard } from '../../ratecard/rate-card'
import type { Scaled } from '../../money/scaled'
import { stretchOf, type LookBack, type Window } from './stretches'

/**
 * What a resource was charged for under a SKU, stretch by stretch of time. What a commitment pays is apart: it goes on whatever becomes of
 * the resource.
 */
export type BilledUse = {
  sku: string
  meter: string | null
  unit: string | null
  currency: string
  /** The line of the provider's rate card; null where none has the SKU. */
  line: PriceLine | null
  /** Charged for existing or for use, as a card or the company's own words say; null where nobody does. */
  charged: Charged | null
  quantity: Scaled[]
  cost: Scaled[]
  /** At list prices, of what no commitment pays. */
  list: Scaled[]
  committedQuantity: Scaled[]
  committedCost: Scaled[]
}

/** A resource as the bill has it. */
export type BilledResource = {
  id: string
  name: string
  provider: string
  service: string
  region: string
  subAccountName: string
  /** The value of the tag that tells environments apart; null where it has none. */
  environment: string | null
  card: RateCard | null
  window: Window
  uses: BilledUse[]
}

/** Equal for one resource, whatever of it was read. */
export const resourceKey = ({ provider, id }: Pick<BilledResource, 'provider' | 'id'>): string => `${provider}\n${id}`

/** What was summed over the last so many days. */
export const within = (sums: readonly Scaled[], days: LookBack): Scaled => total(sums, stretchOf(days), sums.length)
/** What was summed over all before them. */
export const before = (sums: readonly Scaled[], days: LookBack): Scaled => total(sums, 0, stretchOf(days))
/** What was summed from one look-back to another, nearer one. */
export const between = (sums: readonly Scaled[], from: LookBack, to: LookBack): Scaled => total(sums, stretchOf(from), stretchOf(to))

/** Units charged of a SKU in the last so many days, whoever pays them. */
export const unitsIn = ({ quantity, committedQuantity }: BilledUse, days: LookBack): Scaled =>
  within(quantity, days) + within(committedQuantity, days)
/** Units charged of it in all before them. */
export const unitsBefore = ({ quantity, committedQuantity }: BilledUse, days: LookBack): Scaled =>
  before(quantity, days) + before(committedQuantity, days)

/** The uses of a resource under a meter of the rate card. */
export const usesOf = ({ uses }: BilledResource, meter: string): BilledUse[] => uses.filter(({ line }) => line?.meter === meter)

/** A use that is on the rate card. */
export type PaidUse = BilledUse & { line: PriceLine }

/** A use under a SKU that still goes on and is paid for, not all by a commitment, in the currency of its card; null where it is not. */
export function paidNow({ uses, card }: BilledResource, sku: string): PaidUse | null {
  const use = uses.find(one => one.sku === sku && one.line && one.currency === card?.currency && unitsIn(one, 3) > 0n)
  return use?.line && within(use.cost, 30) > 0n ? { ...use, line: use.line } : null
}

/**
 * The one SKU of a meter that a resource is charged under now, not all of it by a commitment, in the currency of its card; null where there
 * is none, or more than one.
 */
export function paidUse(resource: BilledResource, meter: string): PaidUse | null {
  const [use, another] = usesOf(resource, meter).filter(one => unitsIn(one, 3) > 0n)
  const isPaid = use && !another && use.currency === resource.card?.currency && within(use.cost, 30) > 0n
  return isPaid && use.line ? { ...use, line: use.line } : null
}

/** Asked of every resource again and again: nothing is copied for it. */
function total(sums: readonly Scaled[], from: number, to: number): Scaled {
  let sum = 0n
  for (let i = from; i < to; i++) sum += sums[i]!
  return sum
}
