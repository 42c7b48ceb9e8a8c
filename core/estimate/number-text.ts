import { parseDecimal, type Decimal } from '../money/decimal'

/** A number that someone knows, or three that say how well: low, likely, high. */
export type TypedNumber = { low: Decimal, likely: Decimal, high: Decimal, isRange: boolean }

const BETWEEN = /\s*(?:\.\.+|…)\s*|\s+[-–]\s+|(?<=[\d.])\s*–\s*|(?<=\d)-(?=\d)/u

/**
 * Reads what is typed into a number field: `895`, or `650..895..1100` (also `650 - 895 - 1100`) for low, likely and high. Blanks
 * between digits are allowed, as numbers are shown with them.
 * @returns null when it is neither, or when low, likely and high are not in that order.
 */
export function readNumber(text: string): TypedNumber | null {
  const plain = (part: string) => parseDecimal(part.trim().replace(/(?<=\d)[\s\u00A0\u202F](?=\d)/gu, ''))
  const whole = plain(text)
  if (whole) return { low: whole, likely: whole, high: whole, isRange: false }
  const parts = text.trim().split(BETWEEN).map(plain)
  const [low, likely, high] = parts
  if (parts.length !== 3 || !low || !likely || !high || low.gt(likely) || likely.gt(high)) return null
  return { low, likely, high, isRange: !low.eq(high) }
}

/** Writes it the one way it is stored. */
export function numberText({ low, likely, high, isRange }: TypedNumber): string {
  return isRange ? [low, likely, high].map(n => n.toFixed()).join('..') : likely.toFixed()
}
