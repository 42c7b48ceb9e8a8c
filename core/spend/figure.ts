import { Decimal, decimalText } from '../money/decimal'
import { scaledText, type Scaled } from '../money/scaled'
import { adds, type Measure } from './question'

/**
 * What charges come to: a sum; or, of a measure that does not add, the cost and the quantity that it is the quotient of. Figures of either
 * kind add: of unit prices the costs add and the quantities add, and the price is what comes of them.
 */
export type Figure = {
  sum: Scaled
  by: Scaled | null
  /** The sum as it was written, where it is of one row: it need not be written again. */
  text?: string
}

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
export const figureText = ({ sum, by, text }: Figure): string | null => text ?? (by === null ? scaledText(sum) : unitPriceText(sum, by))
