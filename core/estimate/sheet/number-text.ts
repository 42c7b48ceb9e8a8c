import { parseDecimal, type Decimal } from '../../money/decimal'

/** A number that someone knows, or three that say how well: low, likely, high. */
export type TypedNumber = { low: Decimal; likely: Decimal; high: Decimal; isRange: boolean }

/**
 * Reads a number as it is stored: `895`, or `650..895..1100` for low, likely and high. What people type is read by `readTyped`.
 * @returns null when it is neither, or when low, likely and high are not in that order.
 */
export function readNumber(text: string): TypedNumber | null {
  const whole = parseDecimal(text)
  if (whole) return { low: whole, likely: whole, high: whole, isRange: false }
  const parts = text.split('..').map(parseDecimal)
  const [low, likely, high] = parts
  return parts.length === 3 && low && likely && high ? inOrder(low, likely, high) : null
}

/** Low, likely and high as one number; null when they do not stand in that order. */
export function inOrder(low: Decimal, likely: Decimal, high: Decimal): TypedNumber | null {
  return low.gt(likely) || likely.gt(high) ? null : { low, likely, high, isRange: !low.eq(high) }
}

/** Writes it the one way it is stored. */
export function numberText({ low, likely, high, isRange }: TypedNumber): string {
  return isRange ? [low, likely, high].map(n => n.toFixed()).join('..') : likely.toFixed()
}
