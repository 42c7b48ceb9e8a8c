import { scaled, scaledText } from '../money/scaled'
import type { CostCentre, Pool } from './plan'
import type { Settlement } from './settle'
import { branchOf } from './tree'

/** Money that goes from one place of a settled month to another; places are keys such as `from Brackwater`, `pool network`, `to fleet`. */
export type FlowLink = { from: string; to: string; amount: string }

/**
 * Where a month's money comes from and where it lands, in one currency: from providers to what is direct, to pools and to nobody, and from
 * there to the branches of the tree. What goes into a place leaves it, but for what pools give each other; links of nothing are left out.
 */
export function flowLinks(
  { flows, statements, unallocated }: Pick<Settlement, 'flows' | 'statements' | 'unallocated'>,
  { centres, pools }: { centres: readonly CostCentre[]; pools: readonly Pool[] },
  currency: string,
): FlowLink[] {
  const sums = new Map<string, { from: string; to: string; sum: bigint }>()
  const add = (from: string, to: string, amount: string) => {
    const key = JSON.stringify([from, to])
    const known = sums.get(key) ?? { from, to, sum: 0n }
    known.sum += scaled(amount)
    sums.set(key, known)
  }
  const isPool = new Set(pools.map(({ id }) => id))
  for (const { provider, target, amount } of flows.filter(one => one.currency === currency))
    add(`from ${provider}`, target === null ? 'unallocated' : isPool.has(target) ? `pool ${target}` : 'direct', amount)
  for (const { centre, direct, lines } of statements.filter(one => one.currency === currency)) {
    const branch = `to ${branchOf(centres, centre)}`
    add('direct', branch, direct)
    for (const line of lines) if (line.kind === 'share') add(`pool ${line.poolId}`, branch, line.amount)
  }
  for (const { amount } of unallocated.filter(one => one.currency === currency)) add('unallocated', 'to unallocated', amount)
  return [...sums.values()].filter(({ sum }) => sum !== 0n).map(({ sum, ...link }) => ({ ...link, amount: scaledText(sum) }))
}
