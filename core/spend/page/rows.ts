import { companionOf } from '../companions'
import { figuresBy, figureText } from '../figure'
import type { Answer } from '../question'

/** A combination of values with its amount now and in the period compared; null where it was not there. */
export type SpendRow = { id: string; values: (string | null)[]; label: string; amount: string; before: string | null }
/** How a value is called. @param name what its companion says. */
export type Label = (dimension: string, value: string | null, name: string | null | undefined) => string

/** Rows of an answer in one currency, by the dimensions split by, largest first; ids under two names are one row. */
export function rowsOf(
  answer: Pick<Answer, 'rows' | 'unpriced'>,
  before: Pick<Answer, 'rows' | 'unpriced'> | null,
  dimensions: readonly string[],
  currency: string,
  label: Label,
): SpendRow[] {
  const id = ({ values }: Answer['rows'][number]) => JSON.stringify(dimensions.map(d => values[d] ?? null))
  const old = before && figuresBy(before, currency, id)
  return [...figuresBy(answer, currency, id)].flatMap(([key, { row, figure }]) => {
    const amount = figureText(figure)
    if (amount === null) return []
    const values = dimensions.map(d => row.values[d] ?? null)
    const names = dimensions.map((d, i) => label(d, values[i]!, companionOf[d] ? row.values[companionOf[d]] : null))
    const then = old?.get(key)
    return [{ id: key, values, label: names.join(' · ') || 'everything', amount, before: then ? figureText(then.figure) : null }]
  })
}

/** The values of a dimension to choose from, with their amounts; those that cost only in other currencies can be chosen too. */
export function choicesOf(answer: Answer, dimension: string, currency: string, label: Label): SpendRow[] {
  const own = rowsOf(answer, null, [dimension], currency, label)
  const known = new Set(own.map(row => row.id))
  for (const total of answer.totals) {
    if (total.currency === currency) continue
    for (const row of rowsOf(answer, null, [dimension], total.currency, label)) {
      if (known.has(row.id)) continue
      known.add(row.id)
      own.push({ ...row, amount: '0' })
    }
  }
  return own
}

/**
 * Amounts at each start by the id of a row.
 * @param empty what stands where a start has no charges: nought of what adds, null for a price of nothing used.
 */
export function amountsByStart(
  { rows }: Pick<Answer, 'rows'>,
  splitBy: readonly string[],
  starts: readonly string[],
  currency: string,
  empty: string | null,
): Map<string, (string | null)[]> {
  const place = new Map(starts.map((start, i) => [start, i]))
  const found = new Map<string, (string | null)[]>()
  for (const row of splitBy.length ? rows : []) {
    if (row.currency !== currency) continue
    const key = JSON.stringify(splitBy.map(d => row.values[d] ?? null))
    const amounts = found.get(key) ?? starts.map(() => empty)
    found.set(key, amounts)
    const at = place.get(row.start!)
    if (at !== undefined) amounts[at] = row.amount
  }
  return found
}
