import { companionOf } from '../companions'
import { figureText } from '../figure'
import { figureGroups, type FigureGroup } from '../figure-groups'
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
  const old = before && figureGroups(before, dimensions, currency)
  const rows: SpendRow[] = []
  for (const group of figureGroups(answer, dimensions, currency).values()) {
    const amount = figureText(group.figure)
    if (amount === null) continue
    const { id, values } = group
    const names = dimensions.map((dimension, i) => label(dimension, values[i]!, nameOf(group, dimension)))
    const then = old?.get(id)
    rows.push({ id, values, label: names.join(' · ') || 'everything', amount, before: then ? figureText(then.figure) : null })
  }
  return rows
}

const nameOf = (group: FigureGroup, dimension: string): string | null => {
  const companion = companionOf[dimension]
  return companion ? group.value(companion) : null
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
