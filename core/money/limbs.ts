import type { Scaled } from './scaled'

// A scaled amount (10⁻¹⁵) in two floats that hold whole numbers: `high` in 10⁻⁶, `low` in 10⁻¹⁵. Both are added exactly as long as
// they stay within 53 bits.
const LOW = 1_000_000_000n
/** Sums of limbs must stay below this size to be exact. */
export const EXACT = 2 ** 53
/** How many rows' low limbs (each below 10⁹) can be added before the sum could leave 53 bits. */
export const EXACT_ROWS = Math.floor(EXACT / 1e9)

export function highLimb(value: Scaled): number {
  return Number(value / LOW)
}

export function lowLimb(value: Scaled): number {
  return Number(value % LOW)
}

export function fromLimbs(high: number, low: number): Scaled {
  return BigInt(high) * LOW + BigInt(low)
}

/** Amounts up to this size, in 10⁻⁶, are two limbs; larger ones have a third for what is beyond. */
export const LARGEST_HIGH = 2 ** 52
const LARGEST_OF_TWO = BigInt(LARGEST_HIGH) * LOW
/** What one part of the third limb is: 10⁹ units. */
const BEYOND = 10n ** 24n

/** A scaled amount as limbs: `beyond` counts 10⁹ units and is zero for nearly all amounts. */
export function limbsOf(value: Scaled): { high: number; low: number; beyond: number } {
  if (value <= LARGEST_OF_TWO && value >= -LARGEST_OF_TWO) return { high: highLimb(value), low: lowLimb(value), beyond: 0 }
  const rest = value % BEYOND
  return { high: highLimb(rest), low: lowLimb(rest), beyond: Number(value / BEYOND) }
}

/** The amount of so many parts of a third limb. */
export const beyondScaled = (beyond: number): Scaled => BigInt(beyond) * BEYOND
