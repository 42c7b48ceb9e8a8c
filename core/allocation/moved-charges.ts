import { sizeOf, scaledText, type Scaled } from '../money/scaled'
import type { Cube } from '../spend/cube'
import { groupInSlices } from '../spend/group'
import type { Groups } from '../spend/groups'
import type { Coding } from '../spend/layers'
import type { CostMeasure, Grouping } from '../spend/question'
import type { Slices } from '../spend/slices'
import { ruleCodingInSlices } from './rule-coding'
import { rulesInForce } from './centre-days'
import type { CentreTree } from './plan'

/** What is looked at of charges that move. */
export const movedBy = ['SubAccountName', 'ServiceName', 'ResourceName', 'ResourceId'] as const
/** So many are listed one by one. */
const MOST_LISTED = 100

/** Charges that move from one cost centre or pool to another; null for none. */
export type Moved = { from: string | null; to: string | null; currency: string; amount: string; count: number }
export type MovedCharges = {
  /** By where they come from and where they go, the largest first. */
  ways: Moved[]
  /** By resource, service and account, the largest first. */
  charges: (Moved & { values: Record<(typeof movedBy)[number], string | null> })[]
  /** How many more of these there are. */
  more: number
}

/** Rules over charges: a tree, and the charges with what is known beside them. */
export type Ruled = { cube: Cube; tree: CentreTree }

/**
 * The charges of a billing month that other rules (or other lookups) put elsewhere.
 * @param before as it is now. @param after as it would be: over the same charges.
 */
export function* movedCharges(
  before: Ruled,
  after: Ruled,
  { month, measure }: { month: string; measure: CostMeasure },
): Slices<MovedCharges> {
  const codings: Coding[] = []
  for (const { cube, tree } of [before, after]) codings.push(yield* ruleCodingInSlices(rulesInForce(tree), cube))
  const [was, is] = codings as [Coding, Coding]
  const question: Grouping = {
    ...{ start: '1970-01-01', end: '2200-01-01', keep: {}, leaveOut: {}, billingMonth: month },
    ...{ splitBy: [], grain: null, measures: [measure] },
  }
  const targetsOf = ({ tree }: Ruled): Targets => [null, ...tree.rules.map(({ target }) => target)]
  const targets = [targetsOf(before), targetsOf(after)] as const
  const pairs = yield* groupInSlices(before.cube, question, { splits: codings })
  const ways = movedIn(pairs, 0, targets)
  if (!ways.length) return { ways: [], charges: [], more: 0 }
  // only what a rule has from which, or to which, something moves is looked into
  const places = (split: number, size: number) => {
    const allowed = new Uint8Array(size)
    for (const { group } of ways) allowed[pairs.codes[split]![group]!] = 1
    return allowed
  }
  const filters = [
    { coding: was, allowed: places(0, was.values.length) },
    { coding: is, allowed: places(1, is.values.length) },
  ]
  const groups = yield* groupInSlices(before.cube, { ...question, splitBy: [...movedBy] }, { splits: codings, filters })
  const codesOf = ({ group }: Found) => movedBy.map((_, split) => groups.codes[split]![group]!)
  const charges = summed(movedIn(groups, movedBy.length, targets), codesOf)
  const valueOf = (split: number, group: number) => groups.values[split]![groups.codes[split]![group]!]!
  return {
    ways: summed(ways, () => []).map(asText),
    charges: charges
      .slice(0, MOST_LISTED)
      .map(one => ({
        ...asText(one),
        values: Object.fromEntries(
          movedBy.map((name, split) => [name, valueOf(split, one.group)]),
        ) as MovedCharges['charges'][number]['values'],
      })),
    more: Math.max(0, charges.length - MOST_LISTED),
  }
}

type Targets = readonly (string | null)[]
type Found = { group: number; from: string | null; to: string | null; currency: string; amount: Scaled; count: number }

/** Groups whose charges are on something else. @param at which split is the rule of before; that of after is the next. */
function movedIn(groups: Groups, at: number, [was, is]: readonly [Targets, Targets]): Found[] {
  const found: Found[] = []
  for (let group = 0; group < groups.size; group++) {
    const from = was[groups.codes[at]![group]!]!
    const to = is[groups.codes[at + 1]![group]!]!
    if (from === to) continue
    const currency = groups.denomination(groups.kinds[group]!)
    found.push({ group, from, to, currency, amount: groups.sums[0]!.total(groups.cells[group]!), count: groups.counts[group]! })
  }
  return found
}

/** Added up by where they come from, where they go, their currency, and what else tells them apart; the largest first. */
function summed(list: readonly Found[], apart: (one: Found) => readonly number[]): Found[] {
  const sums = new Map<string, Found>()
  for (const one of list) {
    const key = JSON.stringify([one.from, one.to, one.currency, ...apart(one)])
    const own = sums.get(key)
    if (!own) sums.set(key, { ...one })
    else {
      own.amount += one.amount
      own.count += one.count
    }
  }
  return [...sums.values()].sort((a, b) => Number(sizeOf(b.amount) > sizeOf(a.amount)) - Number(sizeOf(a.amount) > sizeOf(b.amount)))
}

const asText = ({ from, to, currency, amount, count }: Found): Moved => ({ from, to, currency, amount: scaledText(amount), count })
