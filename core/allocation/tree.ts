import { scaled, scaledText } from '../money/scaled'
import type { CentreTree, CostCentre } from './plan'

/** A cost centre in the order of the tree, with how deep it lies. */
export type TreeCentre = CostCentre & { depth: number }

/** The centres from the root down, each parent before its children, in the plan's order. */
export function treeOrder(centres: readonly CostCentre[]): TreeCentre[] {
  const below = (parent: string | null, depth: number): TreeCentre[] =>
    centres.filter(centre => centre.parent === parent).flatMap(centre => [{ ...centre, depth }, ...below(centre.id, depth + 1)])
  return below(null, 0)
}

export type CentreAmount = { centre: string; currency: string; direct: string; shared: string; total: string }

/** Amounts of one currency rolled up the tree: each centre with all that lies below it. */
export function rollUp(
  centres: readonly CostCentre[],
  amounts: readonly CentreAmount[],
  currency: string,
): Map<string, { direct: string; shared: string; total: string }> {
  const parents = new Map(centres.map(centre => [centre.id, centre.parent]))
  const sums = new Map(centres.map(centre => [centre.id, { direct: 0n, shared: 0n, total: 0n }]))
  for (const amount of amounts) {
    if (amount.currency !== currency) continue
    for (let id: string | null = amount.centre; id !== null; id = parents.get(id) ?? null) {
      const sum = sums.get(id)
      if (!sum) break
      sum.direct += scaled(amount.direct)
      sum.shared += scaled(amount.shared)
      sum.total += scaled(amount.total)
    }
  }
  return new Map(
    [...sums].map(([id, sum]) => [id, { direct: scaledText(sum.direct), shared: scaledText(sum.shared), total: scaledText(sum.total) }]),
  )
}

/** The centre directly below the root that a centre belongs to; itself when it is one or the root. */
export function branchOf(centres: readonly CostCentre[], id: string): string {
  const parents = new Map(centres.map(centre => [centre.id, centre.parent]))
  let at = id
  for (
    let parent = parents.get(at) ?? null;
    parent !== null && parents.get(parent) !== null && parents.get(parent) !== undefined;
    parent = parents.get(at) ?? null
  )
    at = parent
  return at
}

/** Cost centres, each with all that lies below it. */
type Tops = { centres: readonly string[] }

/** The ids of the cost centres within a bound. */
export function centresWithin(centres: readonly CostCentre[], { centres: tops }: Tops): Set<string> {
  const parents = new Map(centres.map(({ id, parent }) => [id, parent]))
  const within = new Set<string>()
  for (const { id } of centres)
    for (let at: string | null = id; at !== null; at = parents.get(at) ?? null)
      if (tops.includes(at)) {
        within.add(id)
        break
      }
  return within
}

/** The cost centres within a bound as a tree of their own; the uppermost have none above them. */
export function treeWithin(centres: readonly CostCentre[], bound: Tops): CostCentre[] {
  const within = centresWithin(centres, bound)
  return centres
    .filter(({ id }) => within.has(id))
    .map(one => (one.parent !== null && within.has(one.parent) ? one : { ...one, parent: null }))
}

/** Cost centres and pools by names that tell them apart. */
export const namedTargets = ({ centres, pools }: Pick<CentreTree, 'centres' | 'pools'>): { id: string; name: string }[] => [
  ...centres.map(({ id, name }) => ({ id, name })),
  ...pools.map(({ id, name }) => ({ id, name: `${name} (pool)` })),
]
