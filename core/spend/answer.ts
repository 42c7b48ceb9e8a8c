import { Decimal, decimalText } from '../money/decimal'
import { scaledText, type Scaled } from '../money/scaled'
import type { Cube } from './cube'
import { TupleIndex } from '../focus/column-values'
import { CellIndex } from './cell-index'
import { groupCharges, type Groups } from './group'
import type { Answer, AnswerRow, CurrencyAmount, Denomination, Grouping, Measure, Question } from './question'
import { byStep, descending, settleClose } from './order'
import { packAnswer, unpackAnswer, type PackedAnswer, type PackedColumn, type PackedRows } from './packed'
import { finerQuestions, rollUp } from './roll-up'
import type { MeasureName } from './segment'
import { Sums } from './sums'

/** A group of charges with the exact sum of each measure that was asked for. */
export type Group = { values: Record<string, string | null>, start: string | null, currency: string, amounts: Scaled[], count: number }

/** The groups as plain values, for whoever goes on reckoning with them. */
export function plainGroups(cube: Cube, question: Grouping): Group[] {
  const groups = groupCharges(cube, question)
  return Array.from({ length: groups.size }, (_, group) => ({
    values: valuesOf(groups, group, question.splitBy), start: groups.start(group), currency: groups.denomination(group),
    amounts: groups.sums.map(sum => sum.total(groups.cell(group))), count: groups.count(group),
  }))
}

function valuesOf(groups: Groups, group: number, splitBy: readonly string[]): Record<string, string | null> {
  const values: Record<string, string | null> = {}
  splitBy.forEach((dimension, split) => {
    values[dimension] = groups.values(split)[groups.code(group, split)]!
  })
  return values
}

/** Adds up by currency, in the order of the alphabet. */
export function sumByCurrency(items: Iterable<{ currency: string, amount: Scaled }>): CurrencyAmount[] {
  const totals = new Map<string, Scaled>()
  for (const { currency, amount } of items) totals.set(currency, (totals.get(currency) ?? 0n) + amount)
  return [...totals].sort(([a], [b]) => a < b ? -1 : 1).map(([currency, amount]) => ({ currency, amount: scaledText(amount) }))
}

/** Which sums a measure needs, and what keeps them apart. */
export function sumsFor(measure: Measure): { measures: MeasureName[], by: Denomination } {
  switch (measure) {
    case 'pricingQuantity': return { measures: ['pricingQuantity'], by: 'pricing unit' }
    case 'consumedQuantity': return { measures: ['consumedQuantity'], by: 'consumed unit' }
    case 'savedAgainstList': return { measures: ['listCost', 'effectiveCost'], by: 'currency' }
    case 'unitPrice': return { measures: ['effectiveCost', 'pricingQuantity'], by: 'currency per pricing unit' }
    default: return { measures: [measure], by: 'currency' }
  }
}

/**
 * Answers a question: totals per currency (or unit), rows largest first within each start, and, under a limit, the rest with its count.
 * Totals are exact sums of rows and rest. A limit keeps so many of each currency or unit, the largest in size, credits too. With a grain it
 * holds for the whole period: the combinations that are largest over it keep their rows at every start. Unit prices do not add: their totals are the whole cost by the whole quantity, and
 * what has no quantity has no row.
 */
export function answer(cube: Cube, question: Question): Answer {
  return unpackAnswer(answerPacked(cube, question))
}

/** The same with its rows packed. */
export function answerPacked(cube: Cube, question: Question): PackedAnswer {
  return answerOf(groupCharges(cube, { ...question, ...sumsFor(question.measure) }), question)
}

/** Groups are rolled up from others only where there are so many fewer of them than charges. */
const FEWER = 4

/**
 * Answers several questions. Where one splits the same charges further than another, the charges are passed over for it alone, and the
 * other is added up from its groups.
 */
export function answersPacked(cube: Cube, questions: readonly Question[]): PackedAnswer[] {
  const finer = finerQuestions(questions)
  const most = cube.rows / FEWER
  const known = new Map<number, Groups>()
  const groupsOf = (i: number): Groups => {
    const done = known.get(i)
    if (done) return done
    const question = questions[i]!
    const from = finer[i] ?? null
    const whole = from === null ? null : groupsOf(from)
    const groups = whole && whole.size <= most
      ? rollUp(whole, question.splitBy.map(dimension => questions[from!]!.splitBy.indexOf(dimension)), question.grain)
      : groupCharges(cube, { ...question, ...sumsFor(question.measure) })
    known.set(i, groups)
    return groups
  }
  return questions.map((question, i) => answerOf(groupsOf(i), question))
}

function answerOf(groups: Groups, question: Question): PackedAnswer {
  return question.measure === 'unitPrice' ? packAnswer(priceAnswer(groups, question), question.splitBy) : sumAnswer(groups, question)
}

/** A difference of the first two sums, or the first where there is one. */
const sumOf = (groups: Groups, group: number): Scaled => groups.sums[0]!.total(groups.cell(group)) - (groups.sums[1]?.total(groups.cell(group)) ?? 0n)

function sumAnswer(groups: Groups, { splitBy, limit }: Pick<Question, 'splitBy' | 'limit'>): PackedAnswer {
  const [first, less] = groups.sums
  const near = new Float64Array(groups.size)
  for (let group = 0; group < groups.size; group++) near[group] = first!.near(groups.cell(group)) - (less?.near(groups.cell(group)) ?? 0)
  const totals = new KindTotals(groups)
  for (let group = 0; group < groups.size; group++) totals.add(group)
  let kept = Uint32Array.from({ length: groups.size }, (_, group) => group)
  let rest: Answer['rest'] = null
  if (limit !== undefined && groups.size > limit) {
    const combinations = combinationsOf(groups, splitBy.length)
    const { isLargest, count } = largestOf(groups, combinations, near, splitBy.length, limit)
    if (count < combinations.count) {
      kept = kept.filter(group => isLargest[combinations.of[group]!] === 1)
      const shown = new KindTotals(groups)
      for (const group of kept) shown.add(group)
      rest = { count: combinations.count - count, amounts: totals.amounts(shown) }
    }
  }
  const ordered = sorted(groups, kept, splitBy.length, near)
  return {
    totals: totals.amounts(), rest, splitBy, rows: packGroups(groups, ordered, splitBy.length, group => less ? scaledText(sumOf(groups, group)) : first!.text(groups.cell(group))),
  }
}

/** Rows of groups in an order. Values are told apart by their codes, which is quicker than by their texts. */
function packGroups(groups: Groups, order: Uint32Array, splits: number, text: (group: number) => string): PackedRows {
  const column = <T>(codeOf: (group: number) => number, valueOf: (group: number) => T): PackedColumn<T> => {
    const values: T[] = []
    const codes = new Int32Array(order.length)
    const placeOf = new CellIndex()
    for (let row = 0; row < order.length; row++) {
      const group = order[row]!
      const place = placeOf.place(codeOf(group))
      if (place === values.length) values.push(valueOf(group))
      codes[row] = place
    }
    return { values, codes }
  }
  const texts = new Array<string>(order.length)
  for (let row = 0; row < order.length; row++) texts[row] = text(order[row]!)
  return {
    count: order.length, amounts: texts.join(' '), currencies: column(groups.kind, groups.denomination),
    splits: Array.from({ length: splits }, (_, split) => column(group => groups.code(group, split), group => groups.values(split)[groups.code(group, split)]!)),
    starts: order.length && groups.start(order[0]!) !== null ? column(groups.step, group => groups.start(group)!) : null,
  }
}

/** Which combination of values (and currency or unit) each group is of, whatever its start; combinations are numbered from 0. */
function combinationsOf(groups: Groups, splits: number): { of: Int32Array, count: number } {
  const of = new Int32Array(groups.size)
  const index = new TupleIndex(splits + 1)
  const tuple = new Int32Array(splits + 1)
  for (let group = 0; group < groups.size; group++) {
    for (let split = 0; split < splits; split++) tuple[split] = groups.code(group, split)
    tuple[splits] = groups.kind(group)
    of[group] = index.place(tuple)
  }
  return { of, count: index.size }
}

/** Marks the combinations of each currency or unit that are largest in size over the whole period; close ones are told apart exactly, equal ones by their names. */
function largestOf(groups: Groups, { of, count }: { of: Int32Array, count: number }, near: Float64Array, splits: number, limit: number): { isLargest: Uint8Array, count: number } {
  const sizes = new Float64Array(count)
  const member = new Int32Array(count)
  for (let group = 0; group < groups.size; group++) {
    sizes[of[group]!]! += near[group]!
    member[of[group]!] = group
  }
  for (let combination = 0; combination < count; combination++) sizes[combination] = Math.abs(sizes[combination]!)
  const kind = (combination: number) => groups.kind(member[combination]!)
  const all = byStep(descending(sizes), kind)
  const isLargest = new Uint8Array(count)
  let kept = 0
  for (let from = 0, to = 0; from < count; from = to) {
    while (to < count && kind(all[to]!) === kind(all[from]!)) to++
    const order = all.subarray(from, to)
    if (order.length > limit) settleAt(limit, order, sizes, groups, of, member, splits)
    for (const combination of order.subarray(0, limit)) isLargest[combination] = 1
    kept += Math.min(limit, order.length)
  }
  return { isLargest, count: kept }
}

/** Only where a limit falls among close combinations does it matter which of them comes first: those are put into their exact order. */
function settleAt(limit: number, order: Uint32Array, sizes: Float64Array, groups: Groups, of: Int32Array, member: Int32Array, splits: number): void {
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
  order.set(Array.from(close).sort((a, b) => {
    const [x, y] = [size(a), size(b)]
    return x === y ? compareNames(groups, member[a]!, member[b]!, splits) : x > y ? -1 : 1
  }), from)
}

/** Exact totals of groups per currency or unit. */
class KindTotals {
  #sums = new Map<number, { name: string, count: number, sums: Sums[] }>()
  #last = -1
  #own: { name: string, count: number, sums: Sums[] } | null = null

  constructor(private readonly groups: Groups) {}

  add(group: number): void {
    const { groups } = this
    const kind = groups.kind(group)
    if (kind !== this.#last || !this.#own) {
      this.#own = this.#sums.get(kind) ?? { name: groups.denomination(group), count: 0, sums: groups.sums.map(() => new Sums(1)) }
      this.#sums.set(kind, this.#own)
      this.#last = kind
    }
    this.#own.count++
    for (let i = 0; i < this.#own.sums.length; i++) this.#own.sums[i]!.add(0, groups.sums[i]!, groups.cell(group))
  }

  #total(kind: number): Scaled {
    const [sum, less] = this.#sums.get(kind)?.sums ?? []
    return (sum?.total(0) ?? 0n) - (less?.total(0) ?? 0n)
  }

  #countOf(kind: number): number {
    return this.#sums.get(kind)?.count ?? 0
  }

  /** In the order of the alphabet; less others, where a kind whose groups all are among them is left out. */
  amounts(others: KindTotals = new KindTotals(this.groups)): CurrencyAmount[] {
    return [...this.#sums].filter(([kind]) => this.#countOf(kind) > others.#countOf(kind))
      .map(([kind, { name }]) => ({ currency: name, amount: scaledText(this.#total(kind) - others.#total(kind)) })).sort((a, b) => a.currency < b.currency ? -1 : 1)
  }
}

/** Whether two near sums differ by more than what adding floats may have blurred. */
const isApart = (a: number, b: number) => Math.abs(a - b) > 1e-6 * (Math.abs(a) + Math.abs(b) + 1)

/** Groups by start, then largest first; equal ones in the order of their names. */
function sorted(groups: Groups, kept: Uint32Array, splits: number, near: Float64Array): Uint32Array {
  // in the order of names from the start, equal ones never have to be sorted: they are many
  const named = byNames(groups, kept, splits)
  const bySize = descending(Float64Array.from(named, group => near[group]!)).map(place => named[place]!)
  const order = byStep(bySize, groups.step)
  settleClose(order, (a, b) => groups.step(a) === groups.step(b) && !isApart(near[a]!, near[b]!), (a, b) => groups.sums.every(sum => sum.seenEqual(groups.cell(a), groups.cell(b))),
    group => sumOf(groups, group), (x, y, a, b) => x === y ? compareNames(groups, a, b, splits) : x > y ? -1 : 1)
  return order
}

/** Groups in the order of their names: each value's place in the alphabet is found once, and the places make one number. */
function byNames(groups: Groups, kept: Uint32Array, splits: number): Uint32Array {
  const parts = [ranks(kept, groups.kind, groups.denomination), ...Array.from({ length: splits }, (_, split) => ranks(kept, group => groups.code(group, split), group => groups.values(split)[groups.code(group, split)]!))]
  if (parts.reduce((product, { count }) => product * count, 1) > Number.MAX_SAFE_INTEGER) return kept.slice().sort((a, b) => compareNames(groups, a, b, splits))
  const keys = Float64Array.from(kept, group => -parts.reduce((key, { count, of }) => key * count + of(group), 0))
  return descending(keys).map(place => kept[place]!)
}

/** The place of each group's value in the alphabet of those that occur, none last. */
function ranks(kept: Uint32Array, codeOf: (group: number) => number, valueOf: (group: number) => string | null): { count: number, of: (group: number) => number } {
  const values = new Map<number, string | null>()
  for (const group of kept) if (!values.has(codeOf(group))) values.set(codeOf(group), valueOf(group))
  const order = [...values].sort(([, a], [, b]) => a === b ? 0 : a === null ? 1 : b === null ? -1 : a < b ? -1 : 1)
  const rank = new Map(order.map(([code], i) => [code, i]))
  return { count: Math.max(1, order.length), of: group => rank.get(codeOf(group))! }
}

/** The order of two groups by currency or unit and by their values, none last. */
function compareNames(groups: Groups, a: number, b: number, splits: number): number {
  const [x, y] = [groups.denomination(a), groups.denomination(b)]
  if (x !== y) return x < y ? -1 : 1
  for (let split = 0; split < splits; split++) {
    if (groups.code(a, split) === groups.code(b, split)) continue
    const values = groups.values(split)
    const [v, w] = [values[groups.code(a, split)]!, values[groups.code(b, split)]!]
    if (v === null) return 1
    if (w === null) return -1
    return v < w ? -1 : 1
  }
  return 0
}

/** The first so many items of each kind. */
export function firstOfEach<T>(items: readonly T[], kindOf: (item: T) => string, most: number): T[] {
  const counts = new Map<string, number>()
  return items.filter((item) => {
    const before = counts.get(kindOf(item)) ?? 0
    counts.set(kindOf(item), before + 1)
    return before < most
  })
}

/** Digits of a unit price after the point: more than any price list has. */
const PRICE_DIGITS = 12

/** Cost by quantity as text, rounded half away from zero; null where nothing was used, since then there is no price. */
export function unitPriceText(cost: Scaled, quantity: Scaled): string | null {
  return quantity === 0n ? null : decimalText(new Decimal(scaledText(cost)).div(scaledText(quantity)).round(PRICE_DIGITS))
}

function priceAnswer(groups: Groups, question: Question): Answer {
  const rows: (AnswerRow & { cost: Scaled })[] = []
  const wholes = new Map<string, { cost: Scaled, quantity: Scaled }>()
  for (let group = 0; group < groups.size; group++) {
    const cost = groups.sums[0]!.total(groups.cell(group))
    const quantity = groups.sums[1]!.total(groups.cell(group))
    const amount = unitPriceText(cost, quantity)
    if (amount === null) continue
    const currency = groups.denomination(group)
    const whole = wholes.get(currency) ?? { cost: 0n, quantity: 0n }
    wholes.set(currency, { cost: whole.cost + cost, quantity: whole.quantity + quantity })
    rows.push({ values: valuesOf(groups, group, question.splitBy), start: groups.start(group), currency, amount, cost })
  }
  // the dearest in sum first: a price list in the order of what matters
  rows.sort((a, b) => a.start === b.start ? (a.cost === b.cost ? 0 : a.cost > b.cost ? -1 : 1) : (a.start ?? '') < (b.start ?? '') ? -1 : 1)
  const name = (row: AnswerRow) => JSON.stringify([row.currency, row.values])
  const combinations = new Map(rows.map(row => [name(row), row.currency]))
  const { limit } = question
  const largest = limit === undefined ? null : firstOfEach([...combinations], ([, currency]) => currency, limit)
  const names = largest && new Set(largest.map(([own]) => own))
  const kept = names ? rows.filter(row => names.has(name(row))) : rows
  return {
    totals: [...wholes].sort(([a], [b]) => a < b ? -1 : 1).flatMap(([currency, { cost, quantity }]) => {
      const amount = unitPriceText(cost, quantity)
      return amount === null ? [] : [{ currency, amount }]
    }),
    rows: kept.map(({ cost: _, ...row }) => row),
    rest: names && combinations.size > names.size ? { count: combinations.size - names.size, amounts: [] } : null,
  }
}
