import fc from 'fast-check'
import { expect, it } from 'vitest'
import { scaledText } from '../../../core/money/scaled'
import { beyondScaled, fromLimbs, highLimb, LARGEST_HIGH, limbsOf, lowLimb } from '../../../core/money/limbs'
import { limbsText, Sums } from '../../../core/spend/sums'

const largest = BigInt(LARGEST_HIGH) * 10n ** 9n
const amount = fc.oneof(
  fc.bigInt(-largest, largest),
  fc.bigInt(-1000n, 1000n),
  fc.constantFrom(largest, -largest, 999_999_999n, -999_999_999n),
)

it('splits an amount without loss', () => {
  fc.assert(
    fc.property(amount, value => {
      expect(fromLimbs(highLimb(value), lowLimb(value))).toBe(value)
      expect(limbsOf(value)).toEqual({ high: highLimb(value), low: lowLimb(value), beyond: 0 })
    }),
  )
  fc.assert(
    fc.property(fc.bigInt(-(10n ** 30n), 10n ** 30n), value => {
      const { high, low, beyond } = limbsOf(value)
      expect(fromLimbs(high, low) + beyondScaled(beyond)).toBe(value)
      expect(Math.abs(high)).toBeLessThanOrEqual(LARGEST_HIGH)
    }),
  )
})

/** Adds as a pass over rows does: in runs that are announced first. */
function addAll(sums: Sums, cell: number, values: bigint[]): void {
  const top = values.reduce((most, value) => Math.max(most, Math.abs(highLimb(value))), 0)
  const run = Sums.run(top)
  for (let from = 0; from < values.length; from += run) {
    const part = values.slice(from, from + run)
    sums.reserve(part.length, top)
    for (const value of part) {
      sums.high[cell]! += highLimb(value)
      sums.low[cell]! += lowLimb(value)
    }
  }
}

it('sums exactly, also where a float alone would not', () => {
  fc.assert(
    fc.property(fc.array(fc.array(amount, { maxLength: 60 }), { maxLength: 5 }), segments => {
      const sums = new Sums(2)
      for (const values of segments) addAll(sums, 1, values)
      const whole = segments.flat().reduce((a, b) => a + b, 0n)
      expect(sums.total(1)).toBe(whole)
      expect(sums.text(1)).toBe(scaledText(whole))
      expect(sums.total(0)).toBe(0n)
    }),
  )
})

it('carries at the bound of the high limb and of the low one', () => {
  for (const [value, times, segment] of [
    [largest, 5000, 1000],
    [-largest, 5000, 1000],
    [999_999_999n, 20_000_000, 5_000_000],
    [-999_999_999n, 20_000_000, 5_000_000],
  ] as const) {
    const sums = new Sums(1)
    const high = highLimb(value)
    const low = lowLimb(value)
    for (let done = 0; done < times; done += segment) {
      const run = Sums.run(Math.abs(high))
      for (let from = 0; from < segment; from += run) {
        const rows = Math.min(run, segment - from)
        sums.reserve(rows, Math.abs(high))
        for (let i = 0; i < rows; i++) {
          sums.high[0]! += high
          sums.low[0]! += low
        }
      }
    }
    expect(sums.total(0)).toBe(value * BigInt(times))
  }
})

it('keeps its sums when it grows', () => {
  const sums = new Sums(1)
  addAll(sums, 0, [fromLimbs(5, 7)])
  sums.grow(1000)
  addAll(sums, 999, [fromLimbs(1, 1)])
  expect(sums.total(0)).toBe(fromLimbs(5, 7))
  expect(sums.total(999)).toBe(fromLimbs(1, 1))
})

it('writes a pair of sums as whole numbers would be written', () => {
  fc.assert(
    fc.property(fc.integer({ min: -(2 ** 40), max: 2 ** 40 }), fc.integer({ min: -(2 ** 40), max: 2 ** 40 }), (high, low) => {
      expect(limbsText(high, low)).toBe(scaledText(fromLimbs(high, low)))
    }),
  )
})
