import type { Scaled } from '../money/scaled'
import { combinationsOf, keysOf, type CodeColumn } from './combinations'
import { kindColumn, splitColumns, stepColumn, type Groups } from './groups'
import type { Answer } from './question'
import { ascending, countingUp, descending, settleClose } from './order'
import { Sums } from './sums'
import { sumByCurrency } from './plain-groups'

/** A difference of the first two sums, or the first where there is one. */
export const sumOf = ({ sums, cells }: Groups, group: number): Scaled =>
  sums[0]!.total(cells[group]!) - (sums[1]?.total(cells[group]!) ?? 0n)

/** The sums of groups as floats, near enough to sort by. */
export function nearSums({ sums: [first, less], cells }: Groups): Float64Array {
  const near = first!.near(cells)
  const nearLess = less?.near(cells)
  if (nearLess) for (let group = 0; group < near.length; group++) near[group]! -= nearLess[group]!
  return near
}

/** Totals of groups, which of them are of the largest combinations under a limit, and what is left. */
export function largestGroups(
  groups: Groups,
  near: Float64Array,
  limit: number | undefined,
): Pick<Answer, 'totals' | 'rest'> & { kept: Uint32Array } {
  const all = countingUp(groups.size)
  const inAll = kindTotals(groups, all)
  const totals = sumByCurrency([...inAll].map(([kind, { amount }]) => ({ currency: groups.denomination(kind), amount })))
  const combinations =
    limit === undefined || groups.size <= limit ? null : combinationsOf([kindColumn(groups), ...splitColumns(groups)], groups.size)
  if (!combinations) return { totals, rest: null, kept: all }
  const { isLargest, count } = largestOf(groups, combinations, near, limit!)
  if (count === combinations.first.length) return { totals, rest: null, kept: all }
  const kept = all.filter(group => isLargest[combinations.of[group]!] === 1)
  const shown = kindTotals(groups, kept)
  // a currency of which all is shown is not in the rest
  const left = [...inAll]
    .map(([kind, { amount, count }]) => ({
      kind,
      amount: amount - (shown.get(kind)?.amount ?? 0n),
      count: count - (shown.get(kind)?.count ?? 0),
    }))
    .filter(({ count }) => count > 0)
  return {
    totals,
    kept,
    rest: {
      count: combinations.first.length - count,
      amounts: sumByCurrency(left.map(({ kind, amount }) => ({ currency: groups.denomination(kind), amount }))),
    },
  }
}

/**
 * Marks the combinations of each currency or unit that are largest in size over the whole period; close ones are told apart exactly, equal
 * ones by their names.
 */
function largestOf(
  groups: Groups,
  { of, first }: { of: Uint32Array; first: Uint32Array },
  near: Float64Array,
  limit: number,
): { isLargest: Uint8Array; count: number } {
  const sizes = new Float64Array(first.length)
  for (let group = 0; group < groups.size; group++) sizes[of[group]!]! += near[group]!
  for (let combination = 0; combination < sizes.length; combination++) sizes[combination] = Math.abs(sizes[combination]!)
  const kinds = first.map(group => groups.kinds[group]!)
  const all = ascending(descending(sizes), kinds, groups.kindCount)
  const isLargest = new Uint8Array(first.length)
  let count = 0
  for (let from = 0, to = 0; from < all.length; from = to) {
    while (to < all.length && kinds[all[to]!] === kinds[all[from]!]) to++
    const order = all.subarray(from, to)
    if (order.length > limit) settleAt(limit, order, sizes, groups, of, first)
    for (const combination of order.subarray(0, limit)) isLargest[combination] = 1
    count += Math.min(limit, order.length)
  }
  return { isLargest, count }
}

/** Only where a limit falls among close combinations does it matter which of them comes first: those are put into their exact order. */
function settleAt(limit: number, order: Uint32Array, sizes: Float64Array, groups: Groups, of: Uint32Array, first: Uint32Array): void {
  let from = limit
  let to = limit
  while (from > 0 && !isApart(sizes[order[from - 1]!]!, sizes[order[from]!]!)) from--
  if (from === limit) return
  while (to < order.length && !isApart(sizes[order[to - 1]!]!, sizes[order[to]!]!)) to++
  const close = order.slice(from, to)
  const exact = new Map<number, Scaled>(Array.from(close, combination => [combination, 0n]))
  for (let group = 0; group < groups.size; group++) {
    const sum = exact.get(of[group]!)
    if (sum !== undefined) exact.set(of[group]!, sum + sumOf(groups, group))
  }
  const size = (combination: number) => {
    const sum = exact.get(combination)!
    return sum < 0n ? -sum : sum
  }
  order.set(
    Array.from(close).sort((a, b) => {
      const [x, y] = [size(a), size(b)]
      return x === y ? compareNames(groups, first[a]!, first[b]!) : x > y ? -1 : 1
    }),
    from,
  )
}

/** Exact totals of groups by kind, and of how many groups. */
export function kindTotals(groups: Groups, of: Uint32Array): Map<number, { amount: Scaled; count: number }> {
  const kinds = of.map(group => groups.kinds[group]!)
  const cells = of.map(group => groups.cells[group]!)
  const sums = groups.sums.map(sum => {
    const total = new Sums(groups.kindCount)
    total.gather(kinds, sum, cells)
    return total
  })
  const counts = new Uint32Array(groups.kindCount)
  for (let i = 0; i < kinds.length; i++) counts[kinds[i]!]!++
  return new Map(
    [...counts.entries()]
      .filter(([, count]) => count > 0)
      .map(([kind, count]) => [kind, { amount: sums[0]!.total(kind) - (sums[1]?.total(kind) ?? 0n), count }]),
  )
}

/** Whether two near sums differ by more than what adding floats may have blurred. */
const isApart = (a: number, b: number) => Math.abs(a - b) > 1e-6 * (Math.abs(a) + Math.abs(b) + 1)

/** Groups by start, then largest first; equal ones in the order of their names. */
export function sorted(groups: Groups, kept: Uint32Array, near: Float64Array): Uint32Array {
  // in the order of names from the start, equal ones never have to be sorted: they are many
  const named = byNames(groups, kept)
  const sizes = new Float64Array(named.length)
  for (let i = 0; i < named.length; i++) sizes[i] = near[named[i]!]!
  const order = ascending(
    descending(sizes).map(place => named[place]!),
    groups.steps,
    stepColumn(groups).size,
  )
  const { steps, cells, sums } = groups
  settleClose(
    order,
    (a, b) => steps[a] === steps[b] && !isApart(near[a]!, near[b]!),
    (a, b) => sums.every(sum => sum.seenEqual(cells[a]!, cells[b]!)),
    group => sumOf(groups, group),
    (x, y, a, b) => (x === y ? compareNames(groups, a, b) : x > y ? -1 : 1),
  )
  return order
}

/** Groups in the order of their names. Codes are in the order of the alphabet but for none, which comes last. */
function byNames(groups: Groups, kept: Uint32Array): Uint32Array {
  const columns = [
    kindRanks(groups, kept),
    ...splitColumns(groups).map(({ codes, size }) => ({ codes: pickRanks(kept, codes, size), size })),
  ]
  const possible = columns.reduce((product, { size }) => product * size, 1)
  if (possible > Number.MAX_SAFE_INTEGER) return kept.slice().sort((a, b) => compareNames(groups, a, b))
  return ascending(countingUp(kept.length), keysOf(columns, kept.length), possible).map(place => kept[place]!)
}

function pickRanks(kept: Uint32Array, codes: ArrayLike<number>, size: number): Int32Array {
  const ranks = new Int32Array(kept.length)
  for (let i = 0; i < kept.length; i++) {
    const code = codes[kept[i]!]!
    ranks[i] = code === 0 ? size - 1 : code - 1
  }
  return ranks
}

/** Kinds of groups in the order of the alphabet. */
function kindRanks({ kinds, kindCount, denomination }: Groups, kept: Uint32Array): CodeColumn {
  const occurs = new Uint8Array(kindCount)
  for (let i = 0; i < kept.length; i++) occurs[kinds[kept[i]!]!] = 1
  const order = [...occurs.keys()].filter(kind => occurs[kind] === 1).sort((a, b) => (denomination(a) < denomination(b) ? -1 : 1))
  const rankOf = new Int32Array(kindCount)
  order.forEach((kind, rank) => {
    rankOf[kind] = rank
  })
  const codes = new Int32Array(kept.length)
  for (let i = 0; i < kept.length; i++) codes[i] = rankOf[kinds[kept[i]!]!]!
  return { codes, size: Math.max(1, order.length) }
}

/** The order of two groups by currency or unit and by their values, none last. */
function compareNames({ denomination, kinds, codes }: Groups, a: number, b: number): number {
  if (kinds[a] !== kinds[b]) return denomination(kinds[a]!) < denomination(kinds[b]!) ? -1 : 1
  for (const own of codes) {
    const [x, y] = [own[a]!, own[b]!]
    if (x !== y) return x === 0 ? 1 : y === 0 ? -1 : x - y
  }
  return 0
}
