import { scaled, scaledText, type Scaled } from '../money/scaled'
import type { Cube } from './cube'
import { combinationsOf, keysOf, type CodeColumn } from './combinations'
import { groupCharges } from './group'
import { kindColumn, splitColumns, stepColumn, type Groups } from './groups'
import { figureText, noFigure, plusFigure, unitPriceText, type Figure } from './figure'
import {
  adds,
  type Answer,
  type AnswerRow,
  type CurrencyAmount,
  type Denomination,
  type Grouping,
  type Measure,
  type Question,
} from './question'
import { ascending, countingUp, descending, settleClose } from './order'
import { packAnswer, unpackAnswer, type PackedAnswer, type PackedColumn, type PackedRows } from './packed'
import { finerQuestions, jointQuestions, rollUp } from './roll-up'
import type { MeasureName } from './segment'
import { Sums } from './sums'

/** A group of charges with the exact sum of each measure that was asked for. */
export type Group = { values: Record<string, string | null>; start: string | null; currency: string; amounts: Scaled[]; count: number }

/** The groups as plain values, for whoever goes on reckoning with them. */
export function plainGroups(cube: Cube, question: Grouping): Group[] {
  return plainOf(groupCharges(cube, question), question)
}

export function plainOf(groups: Groups, { splitBy, grain }: Grouping): Group[] {
  return Array.from({ length: groups.size }, (_, group) => ({
    values: valuesOf(groups, group, splitBy),
    start: grain === null ? null : startOf(groups, group),
    currency: groups.denomination(groups.kinds[group]!),
    amounts: groups.sums.map(sum => sum.total(groups.cells[group]!)),
    count: groups.counts[group]!,
  }))
}

const startOf = ({ starts, steps }: Groups, group: number) => starts && starts[steps[group]!]!
const valueOf = ({ values, codes }: Groups, group: number, split: number) => values[split]![codes[split]![group]!]!

function valuesOf(groups: Groups, group: number, splitBy: readonly string[]): Record<string, string | null> {
  const values: Record<string, string | null> = {}
  splitBy.forEach((dimension, split) => {
    values[dimension] = valueOf(groups, group, split)
  })
  return values
}

/** Adds up by currency, in the order of the alphabet. */
export function sumByCurrency(items: Iterable<{ currency: string; amount: Scaled }>): CurrencyAmount[] {
  const totals = new Map<string, Scaled>()
  for (const { currency, amount } of items) totals.set(currency, (totals.get(currency) ?? 0n) + amount)
  return [...totals].sort(([a], [b]) => (a < b ? -1 : 1)).map(([currency, amount]) => ({ currency, amount: scaledText(amount) }))
}

/** Which sums a measure needs, and what keeps them apart. */
export function sumsFor(measure: Measure): { measures: MeasureName[]; by: Denomination } {
  switch (measure) {
    case 'pricingQuantity':
      return { measures: ['pricingQuantity'], by: 'pricing unit' }
    case 'consumedQuantity':
      return { measures: ['consumedQuantity'], by: 'consumed unit' }
    case 'savedAgainstList':
      return { measures: ['listCost', 'effectiveCost'], by: 'currency' }
    case 'unitPrice':
      return { measures: ['effectiveCost', 'pricingQuantity'], by: 'currency per pricing unit' }
    default:
      return { measures: [measure], by: 'currency' }
  }
}

/**
 * Answers a question: totals per currency (or unit), rows largest first within each start, and, under a limit, the rest with its count.
 * Totals are exact sums of rows and rest. A limit keeps so many of each currency or unit, the largest in size, credits too. With a grain it
 * holds for the whole period: the combinations that are largest over it keep their rows at every start. Unit prices do not add: their
 * totals are the whole cost by the whole quantity;
 * what has no quantity has no row, and is listed as unpriced.
 */
export function answer(cube: Cube, question: Question): Answer {
  return unpackAnswer(answersPacked(cube, [question])[0]!)
}

/** From so many possible values on, the largest are found over the whole period, and then only their charges are looked at by time. */
const MANY_VALUES = 2000

function findsLargestFirst(cube: Cube, { splitBy, grain, limit, measure, conditions = [] }: Question): boolean {
  // a cost above something is meant of all charges: among those of the largest values alone it would be another cost
  return (
    grain !== null &&
    limit !== undefined &&
    adds(measure) &&
    !conditions.some(condition => 'above' in condition) &&
    splitBy.reduce((product, dimension) => product * cube.coding(dimension).values.length, 1) > MANY_VALUES
  )
}

/** Groups are rolled up from others only where there are so many fewer of them than charges. */
const FEWER = 4

/**
 * Answers several questions, their rows packed. Where one splits the same charges further than another, the charges are passed over for it
 * alone, and the
 * other is added up from its groups; so are several of few values from one that is asked for all of them.
 * @param groupsFor passes over the charges, for whoever makes more of the groups than their sums.
 */
export function answersPacked(
  cube: Cube,
  asked: readonly Question[],
  groupsFor: (question: Question) => Groups = question => groupCharges(cube, { ...question, ...sumsFor(question.measure) }),
): PackedAnswer[] {
  const first = asked.map((question): Question => (findsLargestFirst(cube, question) ? { ...question, grain: null } : question))
  const roots = finerQuestions(first)
  const questions = [
    ...first,
    ...jointQuestions(
      first.filter((_, i) => roots[i] === null),
      dimension => cube.coding(dimension).values.length,
    ),
  ]
  const finer = finerQuestions(questions)
  const most = cube.rows / FEWER
  const known = new Map<number, Groups>()
  const groupsOf = (i: number): Groups => {
    const done = known.get(i)
    if (done) return done
    const question = questions[i]!
    const from = finer[i] ?? null
    const whole = from === null ? null : groupsOf(from)
    const groups =
      whole && whole.size <= most
        ? rollUp(
            whole,
            question.splitBy.map(dimension => questions[from!]!.splitBy.indexOf(dimension)),
            question.grain,
          )
        : groupsFor(question)
    known.set(i, groups)
    return groups
  }
  return asked.map((question, i) => {
    if (question.grain !== first[i]!.grain) return byTimeAnswer(groupsOf(i), question, groupsFor)
    return adds(question.measure) ? sumAnswer(groupsOf(i), question) : packAnswer(priceAnswer(groupsOf(i), question), question.splitBy)
  })
}

/** A difference of the first two sums, or the first where there is one. */
export const sumOf = ({ sums, cells }: Groups, group: number): Scaled =>
  sums[0]!.total(cells[group]!) - (sums[1]?.total(cells[group]!) ?? 0n)

function sumAnswer(groups: Groups, { splitBy, limit }: Pick<Question, 'splitBy' | 'limit'>): PackedAnswer {
  const near = nearSums(groups)
  const { kept, ...sums } = largestGroups(groups, near, limit)
  return { ...sums, splitBy, rows: packGroups(groups, sorted(groups, kept, near)) }
}

/** The course in time of the combinations that are largest over the whole period, given the groups of all of it. */
function byTimeAnswer(whole: Groups, question: Question, groupsFor: (question: Question) => Groups): PackedAnswer {
  const { kept, rest } = largestGroups(whole, nearSums(whole), question.limit)
  const keep = { ...question.keep }
  question.splitBy.forEach((dimension, split) => {
    keep[dimension] = [...new Set(Array.from(kept, group => valueOf(whole, group, split)))]
  })
  const groups = groupsFor({ ...question, keep })
  // values of one dimension are kept whatever the others: not each combination of them is among the largest
  const nameOf = ({ kinds, codes }: Groups, group: number) => JSON.stringify([kinds[group], ...codes.map(own => own[group])])
  const names = new Set(Array.from(kept, group => nameOf(whole, group)))
  const shown = countingUp(groups.size).filter(group => names.has(nameOf(groups, group)))
  // sums that were rounded on the way, by the day, are added up as they are shown
  const totals = sumByCurrency([
    ...(rest?.amounts.map(({ currency, amount }) => ({ currency, amount: scaled(amount) })) ?? []),
    ...[...kindTotals(groups, shown)].map(([kind, { amount }]) => ({ currency: groups.denomination(kind), amount })),
  ])
  return { totals, rest, splitBy: question.splitBy, rows: packGroups(groups, sorted(groups, shown, nearSums(groups))) }
}

function nearSums({ sums: [first, less], cells }: Groups): Float64Array {
  const near = first!.near(cells)
  const nearLess = less?.near(cells)
  if (nearLess) for (let group = 0; group < near.length; group++) near[group]! -= nearLess[group]!
  return near
}

/** Totals of groups, which of them are of the largest combinations under a limit, and what is left. */
function largestGroups(
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

/** Rows of groups in an order. */
function packGroups(groups: Groups, order: Uint32Array): PackedRows {
  const [first, less] = groups.sums
  const text = less ? (group: number) => scaledText(sumOf(groups, group)) : (group: number) => first!.text(groups.cells[group]!)
  const column = <T>({ codes, size }: CodeColumn, valueOf: (code: number) => T): PackedColumn<T> => {
    const values: T[] = []
    const places = new Int32Array(size)
    const found = new Int32Array(order.length)
    for (let row = 0; row < order.length; row++) {
      const code = codes[order[row]!]!
      if (places[code] === 0) places[code] = values.push(valueOf(code))
      found[row] = places[code]! - 1
    }
    return { values, codes: found }
  }
  const texts = new Array<string>(order.length)
  for (let row = 0; row < order.length; row++) texts[row] = text(order[row]!)
  const { starts } = groups
  return {
    count: order.length,
    amounts: texts.join(' '),
    currencies: column(kindColumn(groups), groups.denomination),
    splits: splitColumns(groups).map((codes, split) => column(codes, code => groups.values[split]![code]!)),
    starts: starts && order.length ? column(stepColumn(groups), step => starts[step]!) : null,
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
function sorted(groups: Groups, kept: Uint32Array, near: Float64Array): Uint32Array {
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

/** The first so many items of each kind. */
function firstOfEach<T>(items: readonly T[], kindOf: (item: T) => string, most: number): T[] {
  const counts = new Map<string, number>()
  return items.filter(item => {
    const before = counts.get(kindOf(item)) ?? 0
    counts.set(kindOf(item), before + 1)
    return before < most
  })
}

function priceAnswer(groups: Groups, question: Question): Answer {
  const rows: { row: AnswerRow; cost: Scaled }[] = []
  const unpriced: AnswerRow[] = []
  const wholes = new Map<string, Figure>()
  for (let group = 0; group < groups.size; group++) {
    const cost = groups.sums[0]!.total(groups.cells[group]!)
    const quantity = groups.sums[1]!.total(groups.cells[group]!)
    const currency = groups.denomination(groups.kinds[group]!)
    wholes.set(currency, plusFigure(wholes.get(currency) ?? noFigure(question.measure), { sum: cost, by: quantity }))
    const amount = unitPriceText(cost, quantity)
    const common = { values: valuesOf(groups, group, question.splitBy), start: startOf(groups, group), currency }
    if (amount !== null) rows.push({ row: { ...common, amount, cost: scaledText(cost), quantity: scaledText(quantity) }, cost })
    else if (cost !== 0n) unpriced.push({ ...common, amount: scaledText(cost) })
  }
  // the dearest in sum first: a price list in the order of what matters
  rows.sort((a, b) =>
    a.row.start === b.row.start ? (a.cost === b.cost ? 0 : a.cost > b.cost ? -1 : 1) : (a.row.start ?? '') < (b.row.start ?? '') ? -1 : 1,
  )
  const name = (row: AnswerRow) => JSON.stringify([row.currency, row.values])
  const combinations = new Map(rows.map(({ row }) => [name(row), row.currency]))
  const { limit } = question
  const largest = limit === undefined ? null : firstOfEach([...combinations], ([, currency]) => currency, limit)
  const names = largest && new Set(largest.map(([own]) => own))
  const kept = names ? rows.filter(({ row }) => names.has(name(row))) : rows
  return {
    totals: [...wholes]
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .flatMap(([currency, whole]) => {
        const amount = figureText(whole)
        return amount === null ? [] : [{ currency, amount }]
      }),
    rows: kept.map(({ row }) => row),
    rest: names && combinations.size > names.size ? { count: combinations.size - names.size, amounts: [] } : null,
    ...(unpriced.length && { unpriced }),
  }
}
