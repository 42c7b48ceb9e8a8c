import fc from 'fast-check'
import { expect, it } from 'vitest'
import { byStep, descending, settleClose } from '../../../core/spend/order'

const number = fc.oneof(fc.double({ noNaN: true }), fc.integer({ min: -3, max: 3 }), fc.constantFrom(0, -0, 1e-300, -1e300), fc.tuple(fc.constantFrom(1, -1), fc.nat(9)).map(([sign, n]) => sign * (1 + n * Number.EPSILON)))

it('orders few and many numbers as comparing does, equal ones as they came', () => {
  fc.assert(fc.property(fc.array(number, { minLength: 1, maxLength: 60 }), fc.constantFrom(1, 100), (few, times) => {
    const numbers = Float64Array.from({ length: few.length * times }, (_, i) => few[i % few.length]!)
    const compared = Array.from(numbers, (_, i) => i).sort((a, b) => numbers[a] === numbers[b] ? a - b : numbers[b]! > numbers[a]! ? 1 : -1)
    expect([...descending(numbers)]).toEqual(compared)
  }), { numRuns: 60 })
})

it('tells many numbers apart to the last bit', () => {
  for (const sign of [1, -1]) {
    const numbers = Float64Array.from({ length: 5000 }, (_, i) => sign * (1 + (i * 7919 % 5000) * Number.EPSILON))
    const order = descending(numbers)
    for (let i = 1; i < order.length; i++) expect(numbers[order[i - 1]!]! > numbers[order[i]!]!).toBe(true)
  }
})

it('keeps the order within a step, and settles only what is close', () => {
  expect([...byStep(Uint32Array.of(5, 4, 3, 2, 1), item => item % 2)]).toEqual([4, 2, 5, 3, 1])
  const items = Uint32Array.of(10, 12, 11, 30, 20)
  settleClose(items, (a, b) => Math.abs(a - b) < 5, () => false, item => -item, (a, b) => a - b)
  expect([...items]).toEqual([12, 11, 10, 30, 20])
  const equal = Uint32Array.of(3, 1, 2)
  settleClose(equal, () => true, () => true, item => item, (a, b) => a - b)
  expect([...equal]).toEqual([3, 1, 2])
})
