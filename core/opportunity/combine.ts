import { Decimal, zero } from '../money/decimal'
import { chargeOf, goTogether, type Effect } from './effect'

/** An opportunity as far as what it saves goes: amounts in one currency. */
export type Combinable = { id: string; effects: readonly (Omit<Effect, 'now' | 'then'> & { now: Decimal; then: Decimal })[] }

/** What is counted of each, and what is not since another counts it. */
export type Combination = {
  /** By id what an opportunity of the best combination adds to it. */
  counted: ReadonlyMap<string, Decimal>
  /** What is saved by each alone and not counted, with the ids of those that count it instead. */
  notCounted: { id: string; amount: Decimal; instead: string[] }[]
  total: Decimal
  /** Whether it is known that no other combination saves more. */
  isBest: boolean
}

/** So many ways are tried among opportunities that touch each other, before the best found so far is taken. */
const MOST_TRIED = 200_000

/** What one saves by itself. */
export const savedAlone = ({ effects }: Combinable): Decimal => effects.reduce((sum, { now, then }) => sum.plus(now).minus(then), zero)

/**
 * The combination of opportunities that saves most: of those that exclude each other on a charge one is had; where one leaves fewer units
 * and another makes them cheaper, the second saves only on what is left. Opportunities that touch no common charge do not matter to each
 * other, so each group that does is searched by itself, the best first, by branch and bound.
 * @param all the earlier goes first where two save alike.
 */
export function bestCombination(all: readonly Combinable[]): Combination {
  const counted = new Map<string, Decimal>()
  const notCounted: Combination['notCounted'] = []
  let isBest = true
  for (const group of groupsOf(all)) {
    const { chosen, wasSearched } = search(group)
    isBest &&= wasSearched
    for (const [i, one] of chosen.entries()) counted.set(one.id, addedBy(one, chosen.slice(0, i)))
    for (const one of group) {
      const alone = savedAlone(one)
      const own = counted.get(one.id)
      if (own?.eq(alone)) continue
      const instead = chosen.filter(other => other !== one && touches(one, other)).map(({ id }) => id)
      notCounted.push({ id: one.id, amount: own ? alone.minus(own) : alone, instead })
    }
  }
  return { counted, notCounted, total: [...counted.values()].reduce((sum, one) => sum.plus(one), zero), isBest }
}

/** What one adds to others that it can be had with: what they leave, it saves on. */
function addedBy({ effects }: Combinable, others: readonly Combinable[]): Decimal {
  return effects.reduce((sum, { now, then, ...effect }) => {
    const left = others
      .flatMap(other => other.effects)
      .filter(other => chargeOf(other) === chargeOf(effect) && !other.now.eq(0))
      .reduce((share, other) => share.times(other.then).div(other.now), new Decimal(1))
    return sum.plus(now.minus(then).times(left))
  }, zero)
}

const isAgainst = (one: Combinable, other: Combinable): boolean =>
  one.effects.some(a => other.effects.some(b => chargeOf(a) === chargeOf(b) && !goTogether(a.how, b.how)))
const touches = (one: Combinable, other: Combinable): boolean => one.effects.some(a => other.effects.some(b => chargeOf(a) === chargeOf(b)))

/** Opportunities that touch common charges, directly or by others, in their order. */
function groupsOf(all: readonly Combinable[]): Combinable[][] {
  const parent = all.map((_, i) => i)
  const root = (i: number): number => {
    while (parent[i] !== i) i = parent[i] = parent[parent[i]!]!
    return i
  }
  const byCharge = new Map<string, number>()
  all.forEach(({ effects }, i) => {
    for (const effect of effects) {
      const other = byCharge.get(chargeOf(effect))
      if (other === undefined) byCharge.set(chargeOf(effect), i)
      else parent[root(i)] = root(other)
    }
  })
  const groups = new Map<number, Combinable[]>()
  all.forEach((one, i) => void (groups.get(root(i))?.push(one) ?? groups.set(root(i), [one])))
  return [...groups.values()]
}

function search(group: readonly Combinable[]): { chosen: Combinable[]; wasSearched: boolean } {
  const most = mostEach(group)
  // the largest first: it counts whole, and what comes after it saves on the rest
  const order = group.map(one => ({ one, alone: savedAlone(one), most: most(one) })).filter(one => one.most.gt(0))
  order.sort((a, b) => b.alone.cmp(a.alone))
  const best = { value: zero, chosen: [] as Combinable[] }
  // no more than this can be added from a place on
  const left = order.map(() => zero)
  for (let i = order.length - 1; i >= 0; i--) left[i] = order[i]!.most.plus(left[i + 1] ?? zero)
  let tried = 0
  const walk = (at: number, chosen: readonly Combinable[], value: Decimal): void => {
    if (value.gt(best.value)) Object.assign(best, { value, chosen })
    if (at === order.length || tried >= MOST_TRIED) return
    if (value.plus(left[at]!).lte(best.value)) return
    tried++
    const { one } = order[at]!
    if (!chosen.some(other => isAgainst(one, other))) walk(at + 1, [...chosen, one], value.plus(addedBy(one, chosen)))
    walk(at + 1, chosen, value)
  }
  walk(0, [], zero)
  return { chosen: [...best.chosen], wasSearched: tried < MOST_TRIED }
}

/**
 * The most that each of a group may add, whatever it is had with: all that it makes cheaper, at the dearest that others may leave it, and
 * nothing of what it makes dearer.
 */
function mostEach(group: readonly Combinable[]): (one: Combinable) => Decimal {
  const dearer = new Map<string, Decimal>()
  for (const effect of group.flatMap(({ effects }) => effects)) {
    if (effect.now.eq(0) || effect.then.lte(effect.now)) continue
    const known = dearer.get(chargeOf(effect)) ?? new Decimal(1)
    dearer.set(chargeOf(effect), known.times(effect.then).div(effect.now))
  }
  return ({ effects }) =>
    effects.reduce((sum, { now, then, ...effect }) => {
      const saved = now.minus(then)
      return saved.gt(0) ? sum.plus(saved.times(dearer.get(chargeOf(effect)) ?? 1)) : sum
    }, zero)
}
