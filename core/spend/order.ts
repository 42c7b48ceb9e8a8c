/** Fewer than so many are sorted by comparing. */
const FEW = 3000
const DIGIT_BITS = 11
const DIGITS = 1 << DIGIT_BITS

/** 0, 1, 2 … */
export function countingUp(count: number): Uint32Array<ArrayBuffer> {
  const numbers = new Uint32Array(count)
  for (let i = 0; i < count; i++) numbers[i] = i
  return numbers
}

/** The places of some numbers from the largest number to the smallest; equal ones stay in their order. Linear in how many there are. */
export function descending(numbers: Float64Array): Uint32Array {
  const count = numbers.length
  const order = countingUp(count)
  if (count < FEW) return order.sort((a, b) => numbers[b]! - numbers[a]! || a - b)
  // a float's bits are in the order of the numbers once negative ones are turned over; turned over again all of them count down
  const bits = new Uint32Array(numbers.map(number => number + 0).buffer)
  const high = new Uint32Array(count)
  const low = new Uint32Array(count)
  for (let i = 0; i < count; i++) {
    const isNegative = bits[i * 2 + 1]! >>> 31 === 1
    low[i] = isNegative ? bits[i * 2]! : ~bits[i * 2]!
    high[i] = isNegative ? bits[i * 2 + 1]! : ~(bits[i * 2 + 1]! | 0x8000_0000)
  }
  let [from, to] = [order, new Uint32Array(count)]
  for (const keys of [low, high]) {
    for (let shift = 0; shift < 32; shift += DIGIT_BITS) {
      const places = new Uint32Array(DIGITS + 1)
      for (let i = 0; i < count; i++) places[((keys[i]! >>> shift) & (DIGITS - 1)) + 1]!++
      if (places.includes(count)) continue // all have the same digit
      for (let digit = 0; digit < DIGITS; digit++) places[digit + 1]! += places[digit]!
      for (let i = 0; i < count; i++) {
        const item = from[i]!
        to[places[(keys[item]! >>> shift) & (DIGITS - 1)]!++] = item
      }
      ;[from, to] = [to, from]
    }
  }
  return from
}

/**
 * Brings items into the order of their whole numbers from 0 to below `size`; those of one number stay in their order. Linear in how many
 * there are.
 */
export function ascending(items: Uint32Array, numberOf: ArrayLike<number>, size: number): Uint32Array {
  let from = new Uint32Array(items)
  let to = new Uint32Array(items.length)
  const left = new Float64Array(items.length)
  for (let i = 0; i < items.length; i++) left[i] = numberOf[items[i]!]!
  const digitOf = new Uint16Array(numberOf.length)
  for (let step = 1; step < size; step *= DIGITS) {
    const places = new Uint32Array(DIGITS + 1)
    for (let i = 0; i < items.length; i++) {
      const rest = Math.floor(left[i]! / DIGITS)
      const digit = left[i]! - rest * DIGITS
      left[i] = rest
      digitOf[items[i]!] = digit
      places[digit + 1]!++
    }
    for (let i = 0; i < DIGITS; i++) places[i + 1]! += places[i]!
    for (let i = 0; i < from.length; i++) to[places[digitOf[from[i]!]!]!++] = from[i]!
    ;[from, to] = [to, from]
  }
  return from
}

/**
 * Sorts each run of neighbours that are too close to be told apart by what they were ordered by. A run of equal ones is left as it is.
 * @param isSame whether two items are exactly equal, as far as that is seen at once; false only costs time.
 */
export function settleClose<T>(
  items: Uint32Array,
  isClose: (a: number, b: number) => boolean,
  isSame: (a: number, b: number) => boolean,
  exact: (item: number) => T,
  compare: (a: T, b: T, itemA: number, itemB: number) => number,
): void {
  for (let from = 0; from < items.length;) {
    let to = from + 1
    let allSame = true
    while (to < items.length && isClose(items[to - 1]!, items[to]!)) {
      if (allSame && !isSame(items[to - 1]!, items[to]!)) allSame = false
      to++
    }
    if (!allSame) {
      const run = Array.from(items.subarray(from, to), item => ({ item, exact: exact(item) }))
      run.sort((a, b) => compare(a.exact, b.exact, a.item, b.item))
      run.forEach(({ item }, i) => {
        items[from + i] = item
      })
    }
    from = to
  }
}
