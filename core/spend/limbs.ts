import type { Scaled } from '../money/scaled'

// A scaled amount (10⁻¹⁵) in two floats that hold whole numbers: `high` in 10⁻⁶, `low` in 10⁻¹⁵. Both are added exactly as long as
// they stay within 53 bits; the accumulator carries into a bigint before they could leave them.
const LOW = 1_000_000_000n
const CARRY_AT = 2 ** 52

export function highLimb(value: Scaled): number {
  return Number(value / LOW)
}

export function lowLimb(value: Scaled): number {
  return Number(value % LOW)
}

export function fromLimbs(high: number, low: number): Scaled {
  return BigInt(high) * LOW + BigInt(low)
}

/** Sums of many groups. `cells` groups at once in flat arrays; grows on demand. */
export class LimbSums {
  #high: Float64Array
  #low: Float64Array
  #count: Uint32Array
  #carried = new Map<number, Scaled>()

  constructor(cells: number) {
    this.#high = new Float64Array(cells)
    this.#low = new Float64Array(cells)
    this.#count = new Uint32Array(cells)
  }

  get cells(): number {
    return this.#high.length
  }

  grow(cells: number): void {
    if (cells <= this.cells) return
    const size = Math.max(cells, this.cells * 2)
    const longer = <T extends Float64Array | Uint32Array>(from: T, to: T): T => {
      to.set(from)
      return to
    }
    this.#high = longer(this.#high, new Float64Array(size))
    this.#low = longer(this.#low, new Float64Array(size))
    this.#count = longer(this.#count, new Uint32Array(size))
  }

  /** Adds one amount to a group. Both limbs of a single amount must be within 2⁵² in size. */
  add(cell: number, high: number, low: number): void {
    const h = this.#high[cell]! + high
    const l = this.#low[cell]! + low
    this.#count[cell]!++
    if (h < CARRY_AT && h > -CARRY_AT && l < CARRY_AT && l > -CARRY_AT) {
      this.#high[cell] = h
      this.#low[cell] = l
      return
    }
    this.#carried.set(cell, (this.#carried.get(cell) ?? 0n) + fromLimbs(h, l))
    this.#high[cell] = 0
    this.#low[cell] = 0
  }

  /** How many amounts the group holds: a group that sums to zero is still there. */
  count(cell: number): number {
    return this.#count[cell]!
  }

  total(cell: number): Scaled {
    return (this.#carried.get(cell) ?? 0n) + fromLimbs(this.#high[cell]!, this.#low[cell]!)
  }
}
