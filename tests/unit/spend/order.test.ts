import fc from 'fast-check'
import { expect, it } from 'vitest'
import { ascending, descending, settleClose } from '../../../core/spend/order'

const number = fc.oneof(
  fc.double({ noNaN: true }),
  fc.integer({ min: -3, max: 3 }),
  fc.constantFrom(0, -0, 1e-300, -1e300),
  fc.tuple(fc.constantFrom(1, -1), fc.nat(9)).map(([sign, n]) => sign * (1 + n * Number.EPSILON)),
)

it('orders few and many numbers as comparing does, equal ones as they came', () => {
  fc.assert(
    fc.property(fc.array(number, { minLength: 1, maxLength: 60 }), fc.constantFrom(1, 100), (few, times) => {
      const numbers = Float64Array.from({ length: few.length * times }, (_, i) => few[i % few.length]!)
      const compared = Array.from(numbers, (_, i) => i).sort((a, b) =>
        numbers[a] === numbers[b] ? a - b : numbers[b]! > numbers[a]! ? 1 : -1,
      )
      expect([...descending(numbers)]).toEqual(compared)
    }),
    { numRuns: 60 },
  )
})

it('tells many numbers apart to the last bit', () => {
  for (const sign of [1, -1]) {
    const numbers = Float64Array.from({ length: 5000 }, (_, i) => sign * (1 + ((i * 7919) % 5000) * Number.EPSILON))
    const order = descending(numbers)
    for (let i = 1; i < order.length; i++) expect(numbers[order[i - 1]!]! > numbers[order[i]!]!).toBe(true)
  }
})

it('orders some items by whole numbers of any size, those of one number as they came', () => {
  fc.assert(
    fc.property(
      fc
        .constantFrom(1, 2, 2048, 2049, 5_000_000, 2 ** 53)
        .chain(size => fc.tuple(fc.constant(size), fc.array(fc.integer({ min: 0, max: size - 1 }), { maxLength: 80 }))),
      fc.func(fc.nat()),
      ([size, numbers], draw) => {
        const items = Uint32Array.from(
          numbers
            .map((_, i) => i)
            .filter(i => draw(i) % 4 !== 0)
            .sort((a, b) => draw(a) - draw(b) || a - b),
        )
        const before = [...items]
        expect([...ascending(items, numbers, size)]).toEqual(
          [...before].sort((a, b) => numbers[a]! - numbers[b]! || before.indexOf(a) - before.indexOf(b)),
        )
        expect([...items]).toEqual(before)
      },
    ),
    { numRuns: 200 },
  )
})

it('settles only what is close', () => {
  const items = Uint32Array.of(10, 12, 11, 30, 20)
  settleClose(
    items,
    (a, b) => Math.abs(a - b) < 5,
    () => false,
    item => -item,
    (a, b) => a - b,
  )
  expect([...items]).toEqual([12, 11, 10, 30, 20])
  const equal = Uint32Array.of(3, 1, 2)
  settleClose(
    equal,
    () => true,
    () => true,
    item => item,
    (a, b) => a - b,
  )
  expect([...equal]).toEqual([3, 1, 2])
})
