import type { Scaled } from '../money/scaled'

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
