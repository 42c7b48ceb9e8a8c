import { addTexts, subtractTexts } from '../../money/amount-text'
import { adds, type Answer } from '../question'
import type { Sentence } from '../sentence'
import { isNone, type Hues } from './hues'
import { MOST_MULTIPLES } from './questions'
import type { SpendRow } from './rows'

export type ChartSeries = {
  id: string
  label: string
  values: (string | null)[] | null
  hue: number | null
  /** Whether it stands for charges that have no value of a dimension. */
  isNone: boolean
  /** At each start; null where there is no figure: a price of nothing used. */
  amounts: (string | null)[]
  total: string
}

/** What a chart of the sentence shows: the course of each of the largest rows, and of what is left of the whole. */
export type ChartData = {
  rows: readonly SpendRow[]
  /** All of it at each start. */
  whole: Pick<Answer, 'rows'>
  /** The course of rows by their ids. */
  courses: ReadonlyMap<string, (string | null)[]>
  starts: readonly string[]
  currency: string
  total: string
}

/** @param restLabel how what is left of so many rows is called. */
export function chartSeries(
  sentence: Pick<Sentence, 'splitBy' | 'chart' | 'largest' | 'measure'>,
  { rows, whole, courses, starts, currency, total }: ChartData,
  hues: Hues,
  restLabel: (count: number) => string,
): ChartSeries[] {
  const { splitBy } = sentence
  const isAdditive = adds(sentence.measure)
  const wholes = new Map(whole.rows.filter(row => row.currency === currency).map(row => [row.start!, row.amount]))
  const line = starts.map(start => wholes.get(start) ?? (isAdditive ? '0' : null))
  if (!splitBy.length) return [{ id: 'all', label: 'everything', values: null, hue: 0, isNone: false, amounts: line, total }]
  const most = sentence.chart === 'multiples' ? MOST_MULTIPLES : sentence.largest
  const size = ({ amount }: SpendRow) => Math.abs(Number(amount))
  // one more than asked for is shown where it would be the only one in the rest
  const largest = rows
    .filter(row => courses.has(row.id))
    .sort((a, b) => size(b) - size(a))
    .slice(0, rows.length === most + 1 ? most + 1 : most)
  hues.give(splitBy, largest)
  const shown = largest.map((row): ChartSeries => ({
    ...{ id: row.id, label: row.label, values: row.values, hue: hues.of(splitBy, row), isNone: isNone(row) },
    ...{ total: row.amount, amounts: courses.get(row.id)! },
  }))
  const left = rows.length - shown.length
  if (left === 0 || !isAdditive) return shown
  const amounts = line.map((amount, i) => subtractTexts(amount!, addTexts(shown.map(series => series.amounts[i]!))))
  const rest = { id: 'rest', label: restLabel(left), values: null, hue: null, isNone: false, amounts, total: addTexts(amounts) }
  return [...shown, rest]
}
