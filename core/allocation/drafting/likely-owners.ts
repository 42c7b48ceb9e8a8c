import { scaled } from '../../money/scaled'
import type { UnallocatedGroup } from '../caught'
import type { CentreTree } from '../plan'
import { likelyTarget } from './likely-target'

/** Why a group may belong to a cost centre, and how much that weighs, from 0 to 1. */
export type OwnerReason =
  /** A value of it looks like one that a rule names, or like the cost centre's name. */
  | { kind: 'spelling'; weight: number; dimension: string; value: string; looksLike: string }
  /** Of what has the same value, so much is on the cost centre. */
  | { kind: 'neighbours'; weight: number; dimension: string; value: string; share: number }
  /** Resources of these names were on it the month before, with so much of what they cost. */
  | { kind: 'month before'; weight: number; names: number; share: number }
  /** Of what else its maker made, so much is on it. */
  | { kind: 'maker'; weight: number; by: string; made: number; share: number }
  /** Of what else is in the containers that its resources are in, so much is on it; the path where it is one. */
  | { kind: 'container'; weight: number; path: string | null; containers: number; share: number }
  /** It belongs to resources of which so much is on it: they created it. */
  | { kind: 'attached'; weight: number; to: number; share: number }
export type LikelyOwner = { target: string; weight: number; reasons: OwnerReason[] }

/** What is on cost centres (or pools) beside a group; a target of null is on none. */
export type Beside = readonly { target: string | null; amount: string }[]
export type OwnerEvidence = {
  /** By dimension of the group, what has the same value. */
  neighbours: Readonly<Record<string, Beside>>
  /** What resources of the same names were on the month before, and how many names there are. */
  monthBefore: { names: number; amounts: Beside } | null
  /** Who made how many of its resources, and what the rest of what they made is on. */
  makers?: readonly { by: string; made: number; amounts: Beside }[]
  /** The containers that its resources are in, and what those are on. */
  containers?: { paths: readonly string[]; amounts: Beside } | null
  /** Resources that created those of the group, and what they are on. */
  attached?: { to: number; amounts: Beside } | null
}

/** How much each reason weighs at most: who bore the same resource says most, who else lives in an account least. */
const WEIGHTS = { spelling: 0.8, neighbours: 0.6, monthBefore: 0.9, maker: 0.7, container: 0.65, attached: 0.85 }
/** A neighbourhood of which less is on one cost centre says nothing. */
const LEAST_SHARE = 0.4

/**
 * Who most likely owns a group of the queue, the likeliest first, with the reasons. Reasons for the same owner add to each other as
 * independent ones do: 1 - the product of (1 - weight).
 */
export function likelyOwners(
  group: Pick<UnallocatedGroup, 'values'>,
  tree: Pick<CentreTree, 'rules' | 'centres' | 'pools'>,
  { neighbours, monthBefore, makers = [], containers = null, attached = null }: OwnerEvidence,
): LikelyOwner[] {
  const found = new Map<string, OwnerReason[]>()
  const known = new Set([...tree.centres, ...tree.pools].map(({ id }) => id))
  const say = (target: string, reason: OwnerReason) => {
    if (known.has(target)) found.set(target, [...(found.get(target) ?? []), reason])
  }
  const spelling = likelyTarget(group, tree)
  if (spelling) {
    const { target, ...rest } = spelling
    say(target, { kind: 'spelling', weight: WEIGHTS.spelling, ...rest })
  }
  for (const [dimension, beside] of Object.entries(neighbours)) {
    const value = group.values[dimension]
    const most = mostOf(beside)
    if (value && most)
      say(most.target, { kind: 'neighbours', weight: WEIGHTS.neighbours * most.share, dimension, value, share: most.share })
  }
  const before = monthBefore && mostOf(monthBefore.amounts)
  if (before)
    say(before.target, { kind: 'month before', weight: WEIGHTS.monthBefore * before.share, names: monthBefore.names, share: before.share })
  // several makers do not add to each other: the one who made most of it says
  const maker = [...makers].sort((a, b) => b.made - a.made || (a.by < b.by ? -1 : 1))[0]
  const made = maker && mostOf(maker.amounts)
  if (made) say(made.target, { kind: 'maker', weight: WEIGHTS.maker * made.share, by: maker.by, made: maker.made, share: made.share })
  const within = containers && mostOf(containers.amounts)
  if (within) {
    const [path = null, ...others] = containers.paths
    const named = { path: others.length ? null : path, containers: containers.paths.length }
    say(within.target, { kind: 'container', weight: WEIGHTS.container * within.share, ...named, share: within.share })
  }
  const parents = attached && mostOf(attached.amounts)
  if (parents) say(parents.target, { kind: 'attached', weight: WEIGHTS.attached * parents.share, to: attached.to, share: parents.share })
  return [...found]
    .map(([target, reasons]) => ({ target, reasons, weight: 1 - reasons.reduce((left, { weight }) => left * (1 - weight), 1) }))
    .sort((a, b) => b.weight - a.weight || (a.target < b.target ? -1 : 1))
}

/** The target with the largest part of what is on any; null where that is too little to say something. Credits say nothing. */
function mostOf(beside: Beside): { target: string; share: number } | null {
  const sums = new Map<string, bigint>()
  for (const { target, amount } of beside) if (target !== null) sums.set(target, (sums.get(target) ?? 0n) + scaled(amount))
  const positive = [...sums].filter(([, sum]) => sum > 0n)
  const all = positive.reduce((total, [, sum]) => total + sum, 0n)
  const [first] = positive.sort(([a, one], [b, other]) => (one === other ? (a < b ? -1 : 1) : one > other ? -1 : 1))
  if (!first) return null
  const share = Number((first[1] * 10_000n) / all) / 10_000
  return share < LEAST_SHARE ? null : { target: first[0], share }
}
