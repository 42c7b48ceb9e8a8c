import { Decimal, decimalText } from '../money/decimal'
import { scaledText, type Scaled } from '../money/scaled'
import type { Cube } from './cube'
import { groupCharges, type Groups } from './group'
import type { Answer, AnswerRow, CurrencyAmount, Denomination, Grouping, Measure, Question } from './question'
import type { MeasureName } from './segment'

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
  const near = (group: number) => first!.near(groups.cell(group)) - (less?.near(groups.cell(group)) ?? 0)
  // a combination of values, whatever its start: its name is made of codes, which is quicker than of texts
  const name = (group: number) => {
    let key = groups.denomination(group)
    for (let split = 0; split < question.splitBy.length; split++) key += ` ${groups.code(group, split)}`
    return key
  }
  const order = Array.from({ length: groups.size }, (_, group) => group)
  let rest: Answer['rest'] = null
  let kept = order
  if (question.limit !== undefined && groups.size > question.limit) {
    const sizes = new Map<string, { group: number, amount: Scaled }>()
    for (const group of order) {
      const key = name(group)
      const known = sizes.get(key)
      if (known) known.amount += total(group)
      else sizes.set(key, { group, amount: total(group) })
    }
    if (sizes.size > question.limit) {
      const identity = (group: number) => identityOf(groups, group, question.splitBy)
      const size = (n: Scaled) => n < 0n ? -n : n
      const ranked = [...sizes].sort(([, a], [, b]) => size(a.amount) === size(b.amount) ? (identity(a.group) < identity(b.group) ? -1 : 1) : size(a.amount) > size(b.amount) ? -1 : 1)
      const largest = new Set(ranked.slice(0, question.limit).map(([key]) => key))
      kept = order.filter(group => largest.has(name(group)))
      const left = order.filter(group => !largest.has(name(group)))
      rest = { count: ranked.length - largest.size, amounts: sumByCurrency(left.map(group => ({ currency: groups.denomination(group), amount: total(group) }))) }
    }
  }
  return { totals: sumByCurrency(order.map(group => ({ currency: groups.denomination(group), amount: total(group) }))), rows: sorted(groups, kept, question.splitBy, near, total, text), rest }
}

/** Rows by start, then largest first; equal ones in the order of their names. */
function sorted(groups: Groups, kept: number[], splitBy: readonly string[], near: (group: number) => number, total: (group: number) => Scaled, text: (group: number) => string): AnswerRow[] {
  const items = kept.map(group => ({ group, start: groups.start(group) ?? '', near: near(group) }))
  items.sort((a, b) => {
    if (a.start !== b.start) return a.start < b.start ? -1 : 1
    const apart = b.near - a.near
    if (Math.abs(apart) > 1e-6 * (Math.abs(a.near) + Math.abs(b.near) + 1)) return apart
    const [x, y] = [total(a.group), total(b.group)]
    if (x !== y) return x > y ? -1 : 1
    return identityOf(groups, a.group, splitBy) < identityOf(groups, b.group, splitBy) ? -1 : 1
  })
  return items.map(({ group }) => ({ values: valuesOf(groups, group, splitBy), start: groups.start(group), currency: groups.denomination(group), amount: text(group) }))
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
