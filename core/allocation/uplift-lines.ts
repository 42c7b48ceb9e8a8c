import { minorDecimals } from '../money/currency'
import { scaled, scaledText, type Scaled } from '../money/scaled'
import type { Cube } from '../spend/cube'
import { groupInSlices } from '../spend/group'
import type { Coding } from '../spend/layers'
import type { CostMeasure, Grouping } from '../spend/question'
import type { Slices } from '../spend/slices'
import { hoursOfMonth, monthStart, type Month } from '../time/day'
import type { StoredUplift } from '../uplift/uplift-set'
import { upliftsOnUse, type UpliftOnUse } from '../uplift/uplifts-on-use'
import type { UsedSku } from '../uplift/used-sku'
import { usedThings, type Used } from '../uplift/used-things'
import type { Rule } from './plan'
import { shareOut, type SharingOut } from './share-out'

/** The organisation's uplifts, and what SKUs are of. */
export type UpliftFacts = { sets: readonly StoredUplift[]; skus: ReadonlyMap<string, UsedSku> }

/** A line of uplifts beside the bill: on a cost centre, or (null) on what lies on none. */
export type UpliftLine = Omit<UpliftOnUse, 'target' | 'quantity' | 'unit' | 'price'> & {
  centre: string | null
  /** What it multiplies; null of a part of what is on a pool. */
  times: Pick<UpliftOnUse, 'quantity' | 'unit' | 'price'> | null
  /** The pool that it was on; null where it is on the cost centre itself. */
  pool: { id: string; name: string } | null
}

type Asked = UpliftFacts & { month: Month; rule: Coding; rules: readonly Rule[] }

/**
 * The uplifts on what a month's charges used, on the cost centre or pool that rules put them on.
 * @param question of the month's charges. @param rule the coding of the rules that catch charges.
 */
export function* upliftsOnTargets(
  cube: Cube,
  { measure, ...question }: Grouping & { measure: CostMeasure },
  { sets, skus, month, rule, rules }: Asked,
): Slices<UpliftOnUse[]> {
  const start = monthStart(month)
  const held = sets.filter(({ validFrom }) => validFrom <= start)
  const attached = held.flatMap(set => set.attached)
  const isMeant = ({ use }: UsedSku) =>
    attached.some(({ to, key }) => (to === 'kind' && key === use.kind) || (to === 'system' && use.kind === 'server'))
  const meant = [...skus].flatMap(([sku, own]) => (isMeant(own) ? [sku] : []))
  if (!meant.length) return []
  const keep = { ChargeCategory: ['Usage'], SkuId: meant }
  const splitBy = ['SkuId', 'ResourceId', 'PricingUnit']
  const groups = yield* groupInSlices(cube, { ...question, keep, splitBy, measures: [measure, 'pricingQuantity'] }, { splits: [rule] })
  const value = (split: number, group: number) => groups.values[split]![groups.codes[split]![group]!]!
  function* used(): Iterable<Used> {
    for (let group = 0; group < groups.size; group++) {
      const sku = skus.get(value(0, group)!)!
      const place = groups.codes[3]![group]!
      const [cost, quantity] = groups.sums.map(sum => sum.total(groups.cells[group]!)) as [Scaled, Scaled]
      yield {
        ...{ sku, cost, currency: groups.denomination(groups.kinds[group]!), resource: value(1, group) },
        target: place === 0 ? null : rules[place - 1]!.target,
        // what is measured in another unit than the card's says nothing of how much there is
        quantity: value(2, group) === sku.unit ? quantity : 0n,
      }
    }
  }
  const monthHours = hoursOfMonth(month)
  const things = yield* usedThings(used(), monthHours)
  return yield* upliftsOnUse(held, things, { start, monthHours, decimals: minorDecimals })
}

/**
 * Uplifts on cost centres; what is on pools is divided as they are, and stays on none where they cannot be.
 * @param sharing how the month's own pools are shared out: an uplift in a currency that a pool has no cost in is divided by the base of the
 * cost that it has.
 */
export function upliftLines(onUse: readonly UpliftOnUse[], { pooled: billed, ...sharing }: SharingOut): UpliftLine[] {
  const basis: SharingOut['basis'] = (pool, currency) => {
    const own = [...(billed.get(pool.id)?.keys() ?? [])].sort()
    return sharing.basis(pool, own.includes(currency) ? currency : (own[0] ?? currency))
  }
  const isPool = new Set(sharing.pools.map(({ id }) => id))
  const own = onUse.filter(({ target }) => target === null || !isPool.has(target))
  const lines = own.map(({ target, quantity, unit, price, ...line }): UpliftLine => {
    return { ...line, centre: target, times: { quantity, unit, price }, pool: null }
  })
  // each charge of a set apart, so that its lines say what they are
  const charges = new Map<string, UpliftOnUse[]>()
  for (const one of onUse) {
    if (one.target === null || !isPool.has(one.target)) continue
    const key = JSON.stringify([one.set, one.label, one.unit, one.price])
    charges.set(key, [...(charges.get(key) ?? []), one])
  }
  for (const list of charges.values()) {
    const pooled = new Map<string, Map<string, Scaled>>()
    for (const { target, currency, amount } of list) {
      const sums = pooled.get(target!) ?? new Map<string, Scaled>()
      pooled.set(target!, sums.set(currency, (sums.get(currency) ?? 0n) + scaled(amount)))
    }
    const { set, name, label } = list[0]!
    const { shares, undivided } = shareOut({ ...sharing, basis, pooled })
    for (const { pool, currency, amount, centre } of [...shares, ...undivided.map(one => ({ ...one, centre: null }))])
      if (amount !== 0n)
        lines.push({ centre, set, name, label, currency, amount: scaledText(amount), times: null, pool: { id: pool.id, name: pool.name } })
  }
  const byName = (a: UpliftLine, b: UpliftLine) => (textOf(a) < textOf(b) ? -1 : 1)
  const textOf = ({ centre, name, label, pool, currency }: UpliftLine) => JSON.stringify([centre, name, label, pool?.name ?? '', currency])
  return lines.sort(byName)
}
