import { apportion } from '../money/apportion'
import { minorUnit, sizeOf, type Scaled } from '../money/scaled'
import { evenly, type Basis } from './bases'
import { mayServe, poolTargets, type Pool, type ServingMethod } from './plan'
import { inWholeUnits, largestOf } from '../money/whole-units'
import { simultaneous } from './simultaneous'

/** What a cost centre bears of a pool. */
export type Share = { centre: string; pool: Pool; currency: string; amount: Scaled; ofPool: Scaled; base: ShareBase; note: string | null }
/** By what a share came about: what all cost centres bear of the pool, and the part of the base that this one has, of all of theirs. */
export type ShareBase = { borne: Scaled; weight: bigint; of: bigint; unit: string; decimals: number }
/** What is on a pool that cannot be divided, and why. */
export type Undivided = { pool: Pool; currency: string; amount: Scaled; why: string }

export type SharingOut = {
  pools: readonly Pool[]
  /** How pools that serve each other are settled; nothing where none is served by one that it serves. */
  serving?: ServingMethod | undefined
  /** What rules put on pools, by pool and currency. */
  pooled: ReadonlyMap<string, ReadonlyMap<string, Scaled>>
  basis: (pool: Pool, currency: string) => Basis
  /** Decimals of a currency's minor unit. */
  decimals: (currency: string) => number
}

/**
 * Divides pools among cost centres. What goes to a pool goes on exactly; whole minor units are cut last, among the cost centres, by largest
 * remainders; what is below a minor unit goes with the largest share. So the shares of all pools, with what cannot be divided, add up to
 * what was put on them, to the last digit. A basis that is empty, zero or of both signs falls back to even parts and says so.
 *
 * Pools that serve each other are settled by one of the methods of cost accounting: directly (nothing goes to other pools), step by step in
 * their order (nothing goes back to one before), or by simultaneous equations.
 */
export function shareOut(asked: SharingOut): { shares: Share[]; undivided: Undivided[] } {
  const currencies = [...new Set([...asked.pooled.values()].flatMap(sums => [...sums.keys()]))].sort()
  const parts = currencies.map(currency => ofCurrency(asked, currency))
  const place = new Map(order(asked).map((pool, at) => [pool.id, at]))
  const shares = parts.flatMap(part => part.shares)
  return {
    // by pool, as they are divided one after the other
    shares: shares.sort((a, b) => place.get(a.pool.id)! - place.get(b.pool.id)!),
    undivided: parts.flatMap(part => part.undivided),
  }
}

/** What of a pool goes to no other: `amount`, of `ofPool` that it has with what others put on it. */
type Held = { amount: Scaled; ofPool: Scaled }
type Weighed = Pick<Basis, 'weights' | 'unit' | 'decimals' | 'refused'> & { pool: Pool; note: string | null }

function ofCurrency(asked: SharingOut, currency: string): { shares: Share[]; undivided: Undivided[] } {
  const { pools, serving, pooled, basis, decimals } = asked
  const weighed = order(asked).map((pool): Weighed => {
    const own = basis(pool, currency)
    const { weights, unit, decimals, note } = own.refused === null ? usable(own) : { ...own, weights: [], note: null }
    const at = pools.indexOf(pool)
    const served = serving ? weights.filter(({ target }) => mayServe(serving, pools, at, target)) : weights
    const left = weights.length - served.length
    const said = left ? [note, servingNotes[serving!]].filter(Boolean).join('; ') : note
    return { pool, weights: served, unit, decimals, note: said, refused: own.refused }
  })
  const isPool = (id: string) => weighed.some(({ pool }) => pool.id === id)
  const amounts = weighed.map(({ pool }) => pooled.get(pool.id)?.get(currency) ?? 0n)
  const held = serving === 'reciprocal' ? atOnce(weighed, amounts) : inTurn(weighed, amounts)
  cutAmongServing(held, weighed, minorUnit(decimals(currency)))
  const shares: Share[] = []
  const undivided: Undivided[] = []
  weighed.forEach(({ pool, weights, unit, decimals: digits, note, refused }, at) => {
    const { amount, ofPool } = held[at]!
    // a pool that nothing was put on in a currency has no shares in it
    if (ofPool === 0n && !pooled.get(pool.id)?.has(currency)) return
    if (refused !== null) {
      undivided.push({ pool, currency, amount, why: refused })
      return
    }
    const borne = weights.filter(({ target }) => !isPool(target))
    if (!borne.length) return
    const of = borne.reduce((sum, { weight }) => sum + weight, 0n)
    inMinorUnits(amount, borne, decimals(currency)).forEach((part, i) => {
      const { target, weight } = borne[i]!
      shares.push({
        centre: target,
        pool,
        currency,
        amount: part,
        ofPool,
        base: { borne: amount, weight, of, unit, decimals: digits },
        note,
      })
    })
  })
  return { shares, undivided }
}

const servingNotes: Record<ServingMethod, string> = {
  direct: 'other pools bear nothing of it (direct method)',
  'step-down': 'pools before it bear nothing of it (step-down)',
  reciprocal: '',
}

/** The order in which pools are divided: their own where it is chosen, else each before those that it shares out to. */
function order({ pools, serving }: Pick<SharingOut, 'pools' | 'serving'>): readonly Pool[] {
  if (serving) return pools
  const done = new Set<Pool>()
  const visit = (pool: Pool): void => {
    if (done.has(pool)) return
    for (const other of pools) if (poolTargets(other).includes(pool.id)) visit(other)
    done.add(pool)
  }
  for (const pool of pools) visit(pool)
  return [...done]
}

/** One pool after the other: what goes to a pool that comes later is divided with it. */
function inTurn(weighed: readonly Weighed[], amounts: readonly Scaled[]): Held[] {
  const place = new Map(weighed.map(({ pool }, at) => [pool.id, at]))
  const has = [...amounts]
  return weighed.map(({ weights, refused }, at) => {
    const ofPool = has[at]!
    if (refused !== null) return { amount: ofPool, ofPool }
    const parts = apportion(
      ofPool,
      weights.map(({ weight }) => weight),
    )
    let amount = 0n
    weights.forEach(({ target }, i) => {
      const to = place.get(target)
      if (to === undefined) amount += parts[i]!
      else has[to]! += parts[i]!
    })
    return { amount, ofPool }
  })
}

/** All pools at once: each has what was put on it and its part of what the others have. */
function atOnce(weighed: readonly Weighed[], amounts: readonly Scaled[]): Held[] {
  const place = new Map(weighed.map(({ pool }, at) => [pool.id, at]))
  const size = weighed.length
  const served = weighed.map(({ weights }) => {
    const row = new Array<bigint>(size + 1).fill(0n)
    for (const { target, weight } of weights) row[place.get(target) ?? size]! += weight
    // what cannot be divided stays
    if (!weights.length) row[size] = 1n
    return row
  })
  const { has, keeps, of } = simultaneous(amounts, served)
  const whole = (value: bigint) => value / of
  const kept = keeps.map(whole)
  // what is below the smallest part of all of them goes with the largest
  const all = amounts.reduce((a, b) => a + b, 0n)
  if (size) kept[largestOf(keeps)]! += all - kept.reduce((a, b) => a + b, 0n)
  return weighed.map((_, at) => ({ amount: kept[at]!, ofPool: whole(has[at]!) }))
}

/**
 * Cuts what cost centres bear of pools that serve others, or are served, to whole minor units by largest remainders, so that nothing below
 * a minor unit comes of dividing; what the amounts themselves have below it goes with the largest. They add up to what they did.
 */
function cutAmongServing(held: readonly Held[], weighed: readonly Weighed[], unit: Scaled): void {
  const ids = new Set(weighed.map(({ pool }) => pool.id))
  const serving = weighed.map(({ weights }) => weights.some(({ target }) => ids.has(target)))
  const served = new Set(weighed.flatMap(({ weights }) => weights.map(({ target }) => target)))
  const own = held.filter((one, at) => one.amount !== 0n && (serving[at] || served.has(weighed[at]!.pool.id)))
  if (!own.length) return
  const amounts = own.map(({ amount }) => amount)
  const { parts, rest } = inWholeUnits(amounts, unit)
  own.forEach((one, at) => (one.amount = parts[at]!))
  own[largestOf(amounts)]!.amount += rest
}

/** Weights that can be divided by, and what has to be said of them. */
function usable({ weights, unit, decimals, notes, lacking, everyone }: Basis): Omit<Weighed, 'pool' | 'refused'> {
  const positive = weights.some(({ weight }) => weight > 0n)
  const negative = weights.some(({ weight }) => weight < 0n)
  const said = (more: string[]) => [...more, ...notes].join('; ') || null
  if (positive !== negative)
    return { weights: weights.map(({ target, weight }) => ({ target, weight: sizeOf(weight) })), unit, decimals, note: said([]) }
  const even = weights.length ? weights.map(({ target }) => target) : everyone
  const why = positive ? 'direct costs are of both signs' : lacking
  return { ...evenly(even), note: said([`divided evenly: ${why}`]) }
}

/** An amount in parts of whole minor units that add up to it. */
function inMinorUnits(amount: Scaled, borne: readonly { weight: bigint }[], decimals: number): Scaled[] {
  const unit = minorUnit(decimals)
  const parts = apportion(
    amount / unit,
    borne.map(({ weight }) => weight),
  ).map(units => units * unit)
  const largest = borne.reduce((best, { weight }, i) => (weight > borne[best]!.weight ? i : best), 0)
  parts[largest]! += amount % unit
  return parts
}
