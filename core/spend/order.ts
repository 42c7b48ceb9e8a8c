/** Fewer than so many are sorted by comparing. */
const FEW = 3000
const DIGIT_BITS = 11
const DIGITS = 1 << DIGIT_BITS

/** The places of some numbers from the largest number to the smallest; equal ones stay in their order. Linear in how many there are. */
export function descending(numbers: Float64Array): Uint32Array {
  const count = numbers.length
  const order = Uint32Array.from({ length: count }, (_, i) => i)
  if (count < FEW) return order.sort((a, b) => numbers[b]! - numbers[a]! || a - b)
  // a float's bits are in the order of the numbers once negative ones are turned over; turned over again all of them count down
  const bits = new Uint32Array(Float64Array.from(numbers, number => number + 0).buffer)
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
      [from, to] = [to, from]
    }
  }
  return from
}

/** Brings items into the order of their step, a whole number from 0; those of one step stay in their order. */
export function byStep(items: Uint32Array, stepOf: (item: number) => number): Uint32Array {
  let steps = 0
  for (const item of items) steps = Math.max(steps, stepOf(item) + 1)
  const places = new Uint32Array(steps + 1)
  for (const item of items) places[stepOf(item) + 1]!++
  for (let step = 0; step < steps; step++) places[step + 1]! += places[step]!
  const found = new Uint32Array(items.length)
  for (const item of items) found[places[stepOf(item)]!++] = item
  return found
}

/**
 * Sorts each run of neighbours that are too close to be told apart by what they were ordered by. A run of equal ones is left as it is.
 * @param isSame whether two items are exactly equal, as far as that is seen at once; false only costs time.
 */
export function settleClose<T>(items: Uint32Array, isClose: (a: number, b: number) => boolean, isSame: (a: number, b: number) => boolean, exact: (item: number) => T, compare: (a: T, b: T, itemA: number, itemB: number) => number): void {
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
