import { scaledText, type Scaled } from '../money/scaled'
import type { Cube } from './cube'
import { groupCharges } from './group'
import type { Groups } from './groups'
import type { CurrencyAmount, Grouping } from './question'

/** A group of charges with the exact sum of each measure that was asked for. */
export type Group = { values: Record<string, string | null>; start: string | null; currency: string; amounts: Scaled[]; count: number }

/** The groups as plain values, for whoever goes on reckoning with them. */
export function plainGroups(cube: Cube, question: Grouping): Group[] {
  return plainOf(groupCharges(cube, question), question)
}

/** Groups as objects. */
export function plainOf(groups: Groups, { splitBy, grain }: Grouping): Group[] {
  return Array.from({ length: groups.size }, (_, group) => ({
    values: valuesOf(groups, group, splitBy),
    start: grain === null ? null : startOf(groups, group),
    currency: groups.denomination(groups.kinds[group]!),
    amounts: groups.sums.map(sum => sum.total(groups.cells[group]!)),
    count: groups.counts[group]!,
  }))
}

/** The start of a group, where there are steps of time. */
export const startOf = ({ starts, steps }: Groups, group: number) => starts && starts[steps[group]!]!
export const valueOf = ({ values, codes }: Groups, group: number, split: number) => values[split]![codes[split]![group]!]!

/** The values of a group by dimension. */
export function valuesOf(groups: Groups, group: number, splitBy: readonly string[]): Record<string, string | null> {
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
