import Big from 'big.js'
import { Decimal, decimalText, sum, type DecimalText } from './decimal'
import { SCALE } from './scaled'

/** Exact sum of decimal texts; `0` for none. */
export function addTexts(texts: Iterable<DecimalText>): DecimalText {
  return decimalText(sum([...texts].map(text => new Decimal(text))))
}

/** `a` less `b`, exactly. */
export function subtractTexts(a: DecimalText, b: DecimalText): DecimalText {
  return decimalText(new Decimal(a).minus(b))
}

/** A part of an amount for each of so many, such as a day of a period; rounded half away from zero at fifteen decimals. */
export function divideText(amount: DecimalText, by: number): DecimalText {
  return decimalText(new Decimal(amount).div(by).round(SCALE, Big.roundHalfUp))
}

/** The text with at most fifteen decimals, or so many: a quotient of an estimate may have more than an amount keeps. */
export function roundText(text: DecimalText, digits = SCALE): DecimalText {
  return decimalText(new Decimal(text).round(digits, Big.roundHalfUp))
}

/** The size of an amount, without its sign. */
export function sizeText(text: DecimalText): DecimalText {
  return decimalText(new Decimal(text).abs())
}

/** Whether an amount is more than zero. */
export const isAboveZero = (text: DecimalText): boolean => new Decimal(text).gt(0)
