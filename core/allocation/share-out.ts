import { apportion } from '../money/apportion'
import { minorUnit, type Scaled } from '../money/scaled'
import type { Basis } from './bases'
import { poolTargets, type CostCentre, type Pool } from './plan'

/** What a cost centre bears of a pool. */
export type Share = { centre: string; pool: Pool; currency: string; amount: Scaled; ofPool: Scaled; note: string | null }

export type SharingOut = {
  centres: readonly CostCentre[]
  pools: readonly Pool[]
  /** What rules put on pools, by pool and currency. */
  pooled: ReadonlyMap<string, ReadonlyMap<string, Scaled>>
  basis: (pool: Pool, currency: string) => Basis
  /** Decimals of a currency's minor unit. */
  decimals: (currency: string) => number
}

/**
 * Divides pools among cost centres, those that share out to others before them. What goes to a pool goes on exactly; whole minor units are
 * cut last, among the cost centres, by largest remainders; what is below a minor unit goes with the largest share. So the shares of all
 * pools add up to what was put on them, to the last digit. A basis that is empty, zero or of both signs falls back to even parts and says
 * so.
 */
export function shareOut({ centres, pools, pooled, basis, decimals }: SharingOut): Share[] {
  const held = new Map(pools.map(pool => [pool.id, new Map(pooled.get(pool.id) ?? [])]))
  const isPool = (id: string) => held.has(id)
  const shares: Share[] = []
  for (const pool of inOrder(pools)) {
    for (const [currency, ofPool] of held.get(pool.id)!) {
      const { weights, note } = usable(basis(pool, currency), centres)
      const parts = apportion(
        ofPool,
        weights.map(({ weight }) => weight),
      )
      weights.forEach(({ target }, i) => {
        const own = held.get(target)
        if (own) own.set(currency, (own.get(currency) ?? 0n) + parts[i]!)
      })
      const borne = weights.flatMap((weight, i) => (isPool(weight.target) ? [] : [{ ...weight, part: parts[i]! }]))
      const cut = inMinorUnits(borne, decimals(currency))
      borne.forEach(({ target }, i) => shares.push({ centre: target, pool, currency, amount: cut[i]!, ofPool, note }))
    }
  }
  return shares
}

/** Each pool before those it shares out to. */
function inOrder(pools: readonly Pool[]): Pool[] {
  const byId = new Map(pools.map(pool => [pool.id, pool]))
  const done = new Set<Pool>()
  const visit = (pool: Pool): void => {
    if (done.has(pool)) return
    for (const other of pools) if (poolTargets(other).includes(pool.id)) visit(other)
    done.add(pool)
  }
  for (const pool of byId.values()) visit(pool)
  return [...done]
}

/** Weights that can be divided by, and what has to be said of them. */
function usable({ weights, notes, lacking }: Basis, centres: readonly CostCentre[]): { weights: Basis['weights']; note: string | null } {
  const positive = weights.some(({ weight }) => weight > 0n)
  const negative = weights.some(({ weight }) => weight < 0n)
  const said = (more: string[]) => [...more, ...notes].join('; ') || null
  if (positive !== negative)
    return { weights: weights.map(({ target, weight }) => ({ target, weight: weight < 0n ? -weight : weight })), note: said([]) }
  const everyone = weights.length ? weights : centres.map(({ id }) => ({ target: id, weight: 0n }))
  const why = positive ? 'direct costs are of both signs' : lacking
  return { weights: everyone.map(({ target }) => ({ target, weight: 1n })), note: said([`divided evenly: ${why}`]) }
}

/** Parts in whole minor units that add up to theirs. */
function inMinorUnits(borne: readonly { weight: bigint; part: Scaled }[], decimals: number): Scaled[] {
  if (!borne.length) return []
  const amount = borne.reduce((sum, { part }) => sum + part, 0n)
  const unit = minorUnit(decimals)
  const parts = apportion(
    amount / unit,
    borne.map(({ weight }) => weight),
  ).map(units => units * unit)
  const largest = borne.reduce((best, { weight }, i) => (weight > borne[best]!.weight ? i : best), 0)
  parts[largest]! += amount % unit
  return parts
}
