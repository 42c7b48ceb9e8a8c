import fc from 'fast-check'
import { expect, it } from 'vitest'
import { LARGEST_AMOUNT } from '../../../core/money/scaled'
import { fromLimbs, highLimb, LimbSums, lowLimb } from '../../../core/spend/limbs'

const largest = BigInt(Math.floor(LARGEST_AMOUNT)) * 10n ** 15n
const amount = fc.oneof(fc.bigInt(-largest, largest), fc.bigInt(-1000n, 1000n), fc.constantFrom(largest, -largest, 999_999_999n, -999_999_999n))

it('splits an amount without loss', () => {
  fc.assert(fc.property(amount, value => {
    expect(fromLimbs(highLimb(value), lowLimb(value))).toBe(value)
  }))
})

it('sums exactly, also where a float alone would not', () => {
  fc.assert(fc.property(fc.array(amount, { maxLength: 200 }), (values) => {
    const sums = new LimbSums(2)
    for (const value of values) sums.add(1, highLimb(value), lowLimb(value))
    expect(sums.total(1)).toBe(values.reduce((a, b) => a + b, 0n))
    expect(sums.count(1)).toBe(values.length)
    expect(sums.count(0)).toBe(0)
  }))
})

it('carries at the bound of the high limb and of the low one', () => {
  for (const [value, times] of [[largest, 5000], [-largest, 5000], [999_999_999n, 5_000_000], [-999_999_999n, 5_000_000]] as const) {
    const sums = new LimbSums(1)
    for (let i = 0; i < times; i++) sums.add(0, highLimb(value), lowLimb(value))
    expect(sums.total(0)).toBe(value * BigInt(times))
  }
})

it('keeps its sums when it grows', () => {
  const sums = new LimbSums(1)
  sums.add(0, 5, 7)
  sums.grow(1000)
  sums.add(999, 1, 1)
  expect(sums.total(0)).toBe(fromLimbs(5, 7))
  expect(sums.total(999)).toBe(fromLimbs(1, 1))
})
