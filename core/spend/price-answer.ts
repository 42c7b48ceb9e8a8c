import { scaledText, type Scaled } from '../money/scaled'
import type { Groups } from './groups'
import { figureText, noFigure, plusFigure, unitPriceText, type Figure } from './figure'
import type { Answer, AnswerRow, Question } from './question'
import { valuesOf, startOf } from './plain-groups'

/** The first so many items of each kind. */
function firstOfEach<T>(items: readonly T[], kindOf: (item: T) => string, most: number): T[] {
  const counts = new Map<string, number>()
  return items.filter(item => {
    const before = counts.get(kindOf(item)) ?? 0
    counts.set(kindOf(item), before + 1)
    return before < most
  })
}

/** Unit prices: cost over quantity, in each currency and unit by itself; what has no quantity has no price. */
export function priceAnswer(groups: Groups, question: Question): Answer {
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
