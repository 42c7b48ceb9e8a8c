import { scaledText, type Scaled } from '../money/scaled'
import { EXACT, EXACT_ROWS, fromLimbs, highLimb, lowLimb } from '../money/limbs'

/**
 * Exact sums of one measure for many groups ("cells"). Amounts are added to `high` and `low` by whoever passes over the rows, in runs
 * announced by `reserve`: before a run that could take a float beyond 53 bits, what has been summed moves into whole numbers of any size.
 * Sums of other sums are gathered into sums of their own, over which no rows are passed.
 */
export class Sums {
  high: Float64Array
  low: Float64Array
  #carried = new Map<number, Scaled>()
  #highBound = 0
  #rowBound = 0

  constructor(cells: number) {
    this.high = new Float64Array(cells)
    this.low = new Float64Array(cells)
  }

  /** How many rows whose high limb is at most `largest` may be added in one run. */
  static run(largest: number): number {
    return Math.max(1, Math.min(EXACT_ROWS, largest === 0 ? EXACT_ROWS : Math.floor((EXACT - 1) / largest)))
  }

  /** Announces a run of rows whose high limbs are at most `largest` in size. */
  reserve(rows: number, largest: number): void {
    if (this.#highBound + rows * largest >= EXACT || this.#rowBound + rows > EXACT_ROWS) this.#carry()
    this.#highBound += rows * largest
    this.#rowBound += rows
  }

  grow(cells: number): void {
    if (cells <= this.high.length) return
    const size = Math.max(cells, this.high.length * 2)
    const longer = (from: Float64Array) => {
      const to = new Float64Array(size)
      to.set(from)
      return to
    }
    this.high = longer(this.high)
    this.low = longer(this.low)
  }

  #carry(): void {
    for (let cell = 0; cell < this.high.length; cell++) {
      if (this.high[cell] === 0 && this.low[cell] === 0) continue
      this.#carried.set(cell, this.total(cell))
      this.high[cell] = 0
      this.low[cell] = 0
    }
    this.#highBound = 0
    this.#rowBound = 0
  }

  /** Puts an amount into a cell that holds nothing. */
  set(cell: number, amount: Scaled): void {
    const [high, low] = [highLimb(amount), lowLimb(amount)]
    if (Math.abs(high) < EXACT) {
      this.high[cell] = high
      this.low[cell] = low
    } else this.#carried.set(cell, amount)
  }

  /** Adds an amount to a cell, whatever its size. */
  addScaled(cell: number, amount: Scaled): void {
    this.#carried.set(cell, this.total(cell) + amount)
    this.high[cell] = this.low[cell] = 0
  }

  /** Adds another sum's cell, exactly. */
  add(cell: number, from: Sums, fromCell: number): void {
    const high = this.high[cell]! + from.high[fromCell]!
    const low = this.low[cell]! + from.low[fromCell]!
    if (from.#carried.has(fromCell) || Math.abs(high) >= EXACT || Math.abs(low) >= EXACT) {
      this.#carried.set(cell, this.total(cell) + from.total(fromCell))
      this.high[cell] = this.low[cell] = 0
      return
    }
    this.high[cell] = high
    this.low[cell] = low
  }

  /** Adds cells of another sum, each to the cell at the same place of `to`, exactly. */
  gather(to: ArrayLike<number>, from: Sums, fromCells: ArrayLike<number>): void {
    const { high, low } = this
    const isPlain = from.#carried.size === 0
    for (let i = 0; i < to.length; i++) {
      const cell = to[i]!
      const h = high[cell]! + from.high[fromCells[i]!]!
      const l = low[cell]! + from.low[fromCells[i]!]!
      if (isPlain && Math.abs(h) < EXACT && Math.abs(l) < EXACT) {
        high[cell] = h
        low[cell] = l
      } else this.add(cell, from, fromCells[i]!)
    }
  }

  /** Sums near the exact ones, for a first ordering; equal or close ones are to be compared by `total`. */
  near(cells: Uint32Array): Float64Array {
    const found = new Float64Array(cells.length)
    for (let i = 0; i < cells.length; i++) found[i] = this.high[cells[i]!]! / 1e6 + this.low[cells[i]!]! / 1e15
    if (this.#carried.size) for (let i = 0; i < cells.length; i++) found[i]! += Number(this.#carried.get(cells[i]!) ?? 0n) / 1e15
    return found
  }

  total(cell: number): Scaled {
    return (this.#carried.get(cell) ?? 0n) + fromLimbs(this.high[cell]!, this.low[cell]!)
  }

  /** The sum as decimal text with every digit. */
  text(cell: number): string {
    return this.#carried.has(cell) ? scaledText(this.total(cell)) : limbsText(this.high[cell]!, this.low[cell]!)
  }

  /** Whether two sums are equal, where that is seen without adding limbs up; equal ones may be missed. */
  seenEqual(a: number, b: number): boolean {
    return this.high[a] === this.high[b] && this.low[a] === this.low[b] && !this.#carried.has(a) && !this.#carried.has(b)
  }
}

/** The text of a pair of sums, without whole numbers of any size where floats do: most amounts. */
export function limbsText(high: number, low: number): string {
  const carry = Math.floor(low / 1e9)
  let h = high + carry
  let l = low - carry * 1e9
  if (Math.abs(h) >= EXACT / 2) return scaledText(fromLimbs(high, low))
  const negative = h < 0
  if (negative) {
    h = -h
    if (l > 0) {
      h -= 1
      l = 1e9 - l
    }
  }
  return negative && (h !== 0 || l !== 0) ? `-${sizeText(h, l)}` : sizeText(h, l)
}

function sizeText(high: number, low: number): string {
  // up to fifteen digits the shortest text of a quotient is that of the amount itself
  if (low === 0 && high < 1e15) return String(high / 1e6)
  const whole = Math.floor(high / 1e6)
  return `${whole}.${String(high - whole * 1e6).padStart(6, '0')}${String(low).padStart(9, '0')}`.replace(/\.?0+$/, '')
}
