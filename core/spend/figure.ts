import { Decimal, decimalText } from '../money/decimal'
import { scaled, scaledText, type Scaled } from '../money/scaled'
import { adds, type Answer, type AnswerRow, type Measure } from './question'

/**
 * What charges come to: a sum; or, of a measure that does not add, the cost and the quantity that it is the quotient of. Figures of either
 * kind add: of unit prices the costs add and the quantities add, and the price is what comes of them.
 */
export type Figure = { sum: Scaled; by: Scaled | null }

/** Digits of a unit price after the point: more than any price list has. */
const PRICE_DIGITS = 12

/** Cost by quantity as text, rounded half away from zero; null where nothing was used, since then there is no price. */
export function unitPriceText(cost: Scaled, quantity: Scaled): string | null {
  return quantity === 0n ? null : decimalText(new Decimal(scaledText(cost)).div(scaledText(quantity)).round(PRICE_DIGITS))
}

export const noFigure = (measure: Measure): Figure => ({ sum: 0n, by: adds(measure) ? null : 0n })

export const plusFigure = (a: Figure, b: Figure): Figure => ({
  sum: a.sum + b.sum,
  by: a.by === null && b.by === null ? null : (a.by ?? 0n) + (b.by ?? 0n),
})

/** As decimal text; null for a price of nothing used. */
export const figureText = ({ sum, by }: Figure): string | null => (by === null ? scaledText(sum) : unitPriceText(sum, by))

/** The rows of an answer as figures: those that have no quantity too, since their cost belongs to the price of whatever holds them. */
export function figureRows(
  { rows, unpriced = [] }: Pick<Answer, 'rows' | 'unpriced'>,
  currency: string,
): { row: AnswerRow; figure: Figure }[] {
  const own = (list: readonly AnswerRow[], figureOf: (row: AnswerRow) => Figure) =>
    list.filter(row => row.currency === currency).map(row => ({ row, figure: figureOf(row) }))
  return [
    ...own(rows, ({ amount, cost, quantity }) =>
      cost === undefined || quantity === undefined ? { sum: scaled(amount), by: null } : { sum: scaled(cost), by: scaled(quantity) },
    ),
    ...own(unpriced, ({ amount }) => ({ sum: scaled(amount), by: 0n })),
  ]
}

/** What the rows of an answer come to under each key, in the order in which keys first occur. */
export function figuresBy<K>(
  answer: Pick<Answer, 'rows' | 'unpriced'>,
  currency: string,
  keyOf: (row: AnswerRow) => K,
): Map<K, { row: AnswerRow; figure: Figure }> {
  const found = new Map<K, { row: AnswerRow; figure: Figure }>()
  for (const { row, figure } of figureRows(answer, currency)) {
    const key = keyOf(row)
    const known = found.get(key)
    if (known) known.figure = plusFigure(known.figure, figure)
    else found.set(key, { row, figure })
  }
  return found
}
