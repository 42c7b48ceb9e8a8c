import Big from 'big.js'

/** Exact decimals for prices and quantities. Sums, differences and products are exact; only a quotient is cut, at 20 decimals. */
export const Decimal = Big()
Decimal.DP = 20
Decimal.RM = Big.roundHalfUp
export type Decimal = Big

/** A decimal written out in full, such as `0.0000166667`: what is stored and sent; never a float. */
export type DecimalText = string

export const zero: Decimal = new Decimal(0)

/** Writes every digit, without an exponent. */
export function decimalText(value: Decimal): DecimalText {
  return value.eq(0) ? '0' : value.toFixed()
}

/** Reads a decimal (an exponent is allowed); null when the text is not one. */
export function parseDecimal(text: string): Decimal | null {
  return /^[+-]?(\d+(\.\d*)?|\.\d+)([eE][+-]?\d{1,3})?$/.test(text) ? new Decimal(text.replace(/^\+/, '')) : null
}

/** Exact sum; zero for an empty list. */
export function sum(values: Iterable<Decimal>): Decimal {
  let total = zero
  for (const value of values) total = total.plus(value)
  return total
}
