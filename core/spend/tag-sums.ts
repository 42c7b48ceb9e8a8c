import { scaled, scaledText, type Scaled } from '../money/scaled'
import type { AnswerRow } from './question'

/** How much cost has a tag of its own, inherits it, or lacks it, and how many values it has. Decimal text in one currency. */
export type TagSums = { tagged: string; inherited: string; untagged: string; whole: string; values: number }

/** @param rows by `Tags/KEY` and `TagsFrom/KEY`. */
export function tagSums(rows: readonly AnswerRow[], key: string, currency: string): TagSums {
  const sums = { tagged: 0n, inherited: 0n, untagged: 0n }
  const seen = new Set<string>()
  for (const { values, amount, currency: own } of rows) {
    if (own !== currency) continue
    const value = values[`Tags/${key}`] ?? null
    if (value !== null) seen.add(value)
    sums[value === null ? 'untagged' : values[`TagsFrom/${key}`] === 'own' ? 'tagged' : 'inherited'] += scaled(amount)
  }
  const { tagged, inherited, untagged } = sums
  return {
    ...{ tagged: scaledText(tagged), inherited: scaledText(inherited), untagged: scaledText(untagged) },
    whole: scaledText(tagged + inherited + untagged),
    values: seen.size,
  }
}

/** What each value of a dimension has in one currency, the largest first; what has no value is left out. */
export function valueSums(rows: readonly AnswerRow[], dimension: string, currency: string): { value: string; amount: string }[] {
  const sums = new Map<string, Scaled>()
  for (const { values, amount, currency: own } of rows) {
    const value = values[dimension] ?? null
    if (value !== null && own === currency) sums.set(value, (sums.get(value) ?? 0n) + scaled(amount))
  }
  return [...sums].sort(([, a], [, b]) => (a === b ? 0 : a > b ? -1 : 1)).map(([value, amount]) => ({ value, amount: scaledText(amount) }))
}
