import { combinationsOf } from '../spend/combinations'
import { kindColumn, splitColumns, type Groups } from '../spend/groups'
import { scaledText, type Scaled } from '../money/scaled'
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

/** Charges that no rule has caught, together because they look alike to the rules. */
export type UnallocatedGroup = { values: Record<string, string | null>; currency: string; amount: string; resources: number; count: number }

/**
 * What is left, by what rules look at, the largest first.
 * @param groups of what no rule has caught by `dimensions`, and last by ResourceId.
 */
export function leftOver(groups: Groups, dimensions: readonly string[]): UnallocatedGroup[] {
  const columns = [kindColumn(groups), ...splitColumns(groups).slice(0, dimensions.length)]
  const { of, first } = combinationsOf(columns, groups.size)
  const resources = groups.codes[dimensions.length]!
  const amounts = new Array<Scaled>(first.length).fill(0n)
  const counts = new Float64Array(first.length)
  const named = new Uint32Array(first.length)
  for (let group = 0; group < groups.size; group++) {
    const into = of[group]!
    amounts[into]! += groups.sums[0]!.total(groups.cells[group]!)
    counts[into]! += groups.counts[group]!
    // each resource is one group of its combination
    if (resources[group] !== 0) named[into]!++
  }
  return Array.from(first, (group, i) => ({
    values: Object.fromEntries(dimensions.map((dimension, split) => [dimension, groups.values[split]![groups.codes[split]![group]!]!])),
    currency: groups.denomination(groups.kinds[group]!),
    amount: scaledText(amounts[i]!),
    resources: named[i]!,
    count: counts[i]!,
  })).sort(largestFirst)
}

export const largestFirst = (a: { amount: string }, b: { amount: string }): number => Number(b.amount) - Number(a.amount)
