import { combinationsOf } from '../spend/combinations'
import { kindColumn, type Groups } from '../spend/groups'
import { descending, settleClose } from '../spend/order'
import type { Slices } from '../spend/slices'
import { Sums } from '../spend/sums'
import type { Scaled } from '../money/scaled'
import type { AlikeCharges } from './alike-charges'
import type { CentreTree } from './plan'

/** Sums of a key, by currency. */
export class ByCurrency {
  readonly sums = new Map<string, Map<string, Scaled>>()
  add(key: string, currency: string, amount: Scaled): void {
    const own = this.sums.get(key)
    if (own) own.set(currency, (own.get(currency) ?? 0n) + amount)
    else this.sums.set(key, new Map([[currency, amount]]))
  }
}

/** What the rules of a tree have caught of a month. */
export type Caught = {
  /** By cost centre and currency. */
  direct: ByCurrency
  /** By cost centre: by service (null for none) and currency. */
  services: Map<string, Map<string | null, Map<string, Scaled>>>
  /** By pool and currency, before it is divided. */
  pooled: ByCurrency
  /** In the order of the rules, then of the currencies. */
  catches: { rule: string; currency: string; amount: Scaled; count: number }[]
  /** By provider, target and currency; a target of null is what no rule has caught. */
  flows: { provider: string | null; target: string | null; currency: string; amount: Scaled }[]
}

/**
 * Adds up what each rule has caught.
 * @param groups of a month's charges by ProviderName, ServiceName and the rule that catches them (its place plus one), with one sum.
 */
export function caughtBy({ rules, pools }: CentreTree, groups: Groups): Caught {
  const isPool = new Set(pools.map(({ id }) => id))
  const caught: Caught = { direct: new ByCurrency(), services: new Map(), pooled: new ByCurrency(), catches: [], flows: [] }
  const catches = new Map<string, Caught['catches'][number]>()
  const flows = new Map<string, Caught['flows'][number]>()
  const [providers, services, places] = groups.codes as [Int32Array, Int32Array, Int32Array]
  for (let group = 0; group < groups.size; group++) {
    const currency = groups.denomination(groups.kinds[group]!)
    const amount = groups.sums[0]!.total(groups.cells[group]!)
    const rule = places[group] === 0 ? null : rules[places[group]! - 1]!
    const target = rule?.target ?? null
    const provider = groups.values[0]![providers[group]!]!
    const flow = `${groups.kinds[group]} ${providers[group]} ${target ?? ''}${target === null ? '' : ' '}`
    const known = flows.get(flow)
    if (known) known.amount += amount
    else flows.set(flow, { provider, target, currency, amount })
    if (!rule || target === null) continue
    const own = `${groups.kinds[group]} ${places[group]}`
    const before = catches.get(own)
    if (before) {
      before.amount += amount
      before.count += groups.counts[group]!
    } else catches.set(own, { rule: rule.id, currency, amount, count: groups.counts[group]! })
    if (isPool.has(target)) {
      caught.pooled.add(target, currency, amount)
      continue
    }
    caught.direct.add(target, currency, amount)
    const ofCentre = caught.services.get(target) ?? new Map<string | null, Map<string, Scaled>>()
    caught.services.set(target, ofCentre)
    const service = groups.values[1]![services[group]!]!
    const sums = ofCentre.get(service) ?? new Map<string, Scaled>()
    ofCentre.set(service, sums)
    sums.set(currency, (sums.get(currency) ?? 0n) + amount)
  }
  const order = new Map(rules.map(({ id }, place) => [id, place]))
  const inOrder = [...catches.values()].sort((a, b) => order.get(a.rule)! - order.get(b.rule)! || (a.currency < b.currency ? -1 : 1))
  return { ...caught, catches: inOrder, flows: [...flows.values()] }
}

/** Charges that no rule has caught, together because they look alike to the rules; or what is on a pool that cannot be divided, and why. */
export type UnallocatedGroup = {
  values: Record<string, string | null>
  currency: string
  amount: string
  resources: number
  count: number
  pool?: { id: string; name: string; why: string } | undefined
}

/** So many groups are written out in a slice. */
const GROUPS_AT_ONCE = 5000

/**
 * What is left, by what rules look at, the largest first.
 * @param groups of what no rule has caught by the combinations of `charges`, which are by `dimensions`, and last by ResourceId.
 */
export function* leftOver(groups: Groups, dimensions: readonly string[], charges: AlikeCharges): Slices<UnallocatedGroup[]> {
  const combinations = groups.codes[0]!
  const alike = new Int32Array(groups.size)
  for (let group = 0; group < groups.size; group++) alike[group] = charges.alike[combinations[group]!]!
  const columns = [kindColumn(groups), { codes: alike, size: charges.alike.length }]
  const { of, first } = combinationsOf(columns, groups.size)
  const resources = charges.codes[dimensions.length]!
  const sums = new Sums(first.length)
  sums.gather(of, groups.sums[0]!, groups.cells)
  const counts = new Float64Array(first.length)
  const named = new Uint32Array(first.length)
  for (let group = 0; group < groups.size; group++) {
    const into = of[group]!
    counts[into]! += groups.counts[group]!
    // each resource is one group of its combination
    if (resources[combinations[group]!] !== 0) named[into]!++
  }
  yield
  const found: UnallocatedGroup[] = []
  for (let i = 0; i < first.length; i++) {
    if (i % GROUPS_AT_ONCE === GROUPS_AT_ONCE - 1) yield
    const group = first[i]!
    const values: UnallocatedGroup['values'] = {}
    for (let split = 0; split < dimensions.length; split++)
      values[dimensions[split]!] = charges.values[split]![charges.codes[split]![combinations[group]!]!]!
    const currency = groups.denomination(groups.kinds[group]!)
    found.push({ values, currency, amount: sums.text(i), resources: named[i]!, count: counts[i]! })
  }
  yield
  // equal ones in the order of their values: in which they were met says nothing
  const sizes = Float64Array.from(found, ({ amount }) => Number(amount))
  const order = descending(sizes)
  const inTurn = (a: number, b: number): number => {
    const [one, other] = [first[a]!, first[b]!]
    for (const codes of charges.codes) {
      const difference = codes[combinations[one]!]! - codes[combinations[other]!]!
      if (difference !== 0) return difference
    }
    return groups.kinds[one]! - groups.kinds[other]!
  }
  settleClose(
    order,
    (a, b) => sizes[a] === sizes[b],
    () => false,
    place => place,
    inTurn,
  )
  return Array.from(order, place => found[place]!)
}

/** The largest first; those that floats do not tell apart as they come. */
export function inSizeOrder<T extends { amount: string }>(list: readonly T[]): T[] {
  const sizes = Float64Array.from(list, ({ amount }) => Number(amount))
  return Array.from(descending(sizes), place => list[place]!)
}
