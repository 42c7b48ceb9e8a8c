import { Decimal, decimalText } from '../money/decimal'
import { scaledText, type Scaled } from '../money/scaled'
import type { Cube } from './cube'
import { TupleIndex } from '../focus/column-values'
import { groupCharges, type Groups } from './group'
import type { Answer, AnswerRow, CurrencyAmount, Denomination, Grouping, Measure, Question } from './question'
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
 * Totals are exact sums of rows and rest. A limit keeps the largest in size, credits too. With a grain it holds for the whole period: the combinations that are
 * largest over it keep their rows at every start. Unit prices do not add: their totals are the whole cost by the whole quantity, and
 * what has no quantity has no row.
 */
export function answer(cube: Cube, question: Question): Answer {
  const groups = groupCharges(cube, { ...question, ...sumsFor(question.measure) })
  return question.measure === 'unitPrice' ? priceAnswer(groups, question) : sumAnswer(groups, question)
}

function sumAnswer(groups: Groups, question: Pick<Question, 'splitBy' | 'limit' | 'measure'>): Answer {
  const [first, less] = groups.sums
  const total = (group: number) => first!.total(groups.cell(group)) - (less?.total(groups.cell(group)) ?? 0n)
  const text = (group: number) => less ? scaledText(total(group)) : first!.text(groups.cell(group))
  const near = new Float64Array(groups.size)
  for (let group = 0; group < groups.size; group++) near[group] = first!.near(groups.cell(group)) - (less?.near(groups.cell(group)) ?? 0)
  const all = Array.from({ length: groups.size }, (_, group) => group)
  const sums = (list: number[]) => totalsOf(groups, list)
  let rest: Answer['rest'] = null
  let kept = all
  if (question.limit !== undefined && groups.size > question.limit) {
    const combinations = combinationsOf(groups, question.splitBy.length)
    if (combinations.count > question.limit) {
      const largest = largestOf(groups, combinations, near, question)
      kept = all.filter(group => largest.has(combinations.of[group]!))
      rest = { count: combinations.count - largest.size, amounts: sums(all.filter(group => !largest.has(combinations.of[group]!))) }
    }
  }
  return { totals: sums(all), rows: sorted(groups, kept, question.splitBy, near, total, text), rest }
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

/** The combinations that are largest in size over the whole period; close ones are told apart exactly, equal ones by their names. */
function largestOf(groups: Groups, { of, count }: { of: Int32Array, count: number }, near: Float64Array, { splitBy, limit }: Pick<Question, 'splitBy' | 'limit'>): Set<number> {
  const sizes = new Float64Array(count)
  const members: number[][] = Array.from({ length: count }, () => [])
  for (let group = 0; group < groups.size; group++) {
    sizes[of[group]!]! += near[group]!
    members[of[group]!]!.push(group)
  }
  const exact = (combination: number) => {
    const sum = members[combination]!.reduce((n, group) => n + groups.sums[0]!.total(groups.cell(group)) - (groups.sums[1]?.total(groups.cell(group)) ?? 0n), 0n)
    return sum < 0n ? -sum : sum
  }
  const order = Array.from({ length: count }, (_, combination) => combination).sort((a, b) => {
    const [x, y] = [Math.abs(sizes[a]!), Math.abs(sizes[b]!)]
    if (isApart(x, y)) return y - x
    const [p, q] = [exact(a), exact(b)]
    return p === q ? (identityOf(groups, members[a]![0]!, splitBy) < identityOf(groups, members[b]![0]!, splitBy) ? -1 : 1) : p > q ? -1 : 1
  })
  return new Set(order.slice(0, limit))
}

/** Exact totals per currency or unit, in the order of the alphabet. */
function totalsOf(groups: Groups, list: number[]): CurrencyAmount[] {
  const names = new Map<number, string>()
  const totals = new Map<number, Sums[]>()
  for (const group of list) {
    const kind = groups.kind(group)
    let own = totals.get(kind)
    if (!own) {
      totals.set(kind, own = groups.sums.map(() => new Sums(1)))
      names.set(kind, groups.denomination(group))
    }
    for (let i = 0; i < own.length; i++) own[i]!.add(0, groups.sums[i]!, groups.cell(group))
  }
  return [...totals].map(([kind, [sum, less]]) => ({ currency: names.get(kind)!, amount: scaledText(sum!.total(0) - (less?.total(0) ?? 0n)) })).sort((a, b) => a.currency < b.currency ? -1 : 1)
}

/** Whether two near sums differ by more than what adding floats may have blurred. */
const isApart = (a: number, b: number) => Math.abs(a - b) > 1e-6 * (Math.abs(a) + Math.abs(b) + 1)

/** Rows by start, then largest first; equal ones in the order of their names. */
function sorted(groups: Groups, kept: number[], splitBy: readonly string[], near: Float64Array, total: (group: number) => Scaled, text: (group: number) => string): AnswerRow[] {
  const steps = new Int32Array(groups.size)
  for (const group of kept) steps[group] = groups.step(group)
  return [...kept].sort((a, b) => {
    if (steps[a] !== steps[b]) return steps[a]! - steps[b]!
    if (isApart(near[a]!, near[b]!)) return near[b]! - near[a]!
    const [x, y] = [total(a), total(b)]
    if (x !== y) return x > y ? -1 : 1
    return identityOf(groups, a, splitBy) < identityOf(groups, b, splitBy) ? -1 : 1
  }).map(group => ({ values: valuesOf(groups, group, splitBy), start: groups.start(group), currency: groups.denomination(group), amount: text(group) }))
}

function identityOf(groups: Groups, group: number, splitBy: readonly string[]): string {
  return JSON.stringify([groups.denomination(group), ...splitBy.map((_, split) => groups.values(split)[groups.code(group, split)]!)])
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
  const ranked = [...new Set(rows.map(row => JSON.stringify([row.currency, row.values])))]
  const largest = question.limit === undefined ? null : new Set(ranked.slice(0, question.limit))
  const kept = largest ? rows.filter(row => largest.has(JSON.stringify([row.currency, row.values]))) : rows
  return {
    totals: [...wholes].sort(([a], [b]) => a < b ? -1 : 1).flatMap(([currency, { cost, quantity }]) => {
      const amount = unitPriceText(cost, quantity)
      return amount === null ? [] : [{ currency, amount }]
    }),
    rows: kept.map(({ cost: _, ...row }) => row),
    rest: largest && ranked.length > largest.size ? { count: ranked.length - largest.size, amounts: [] } : null,
  }
}
