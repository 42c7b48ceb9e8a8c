import fc from 'fast-check'
import { expect, it } from 'vitest'
import { apportion } from '../../../core/money/apportion'

const weights = fc.array(fc.bigInt(0n, 10n ** 20n), { minLength: 1, maxLength: 30 }).filter(list => list.some(w => w > 0n))

it('adds up to what was divided, to the last unit', () => {
  fc.assert(
    fc.property(fc.bigInt(-(10n ** 15n), 10n ** 15n), weights, (units, list) => {
      expect(apportion(units, list).reduce((a, b) => a + b, 0n)).toBe(units)
    }),
  )
})

it('gives no one more than a unit beside the exact share', () => {
  fc.assert(
    fc.property(fc.bigInt(0n, 10n ** 12n), weights, (units, list) => {
      const total = list.reduce((a, b) => a + b, 0n)
      apportion(units, list).forEach((part, i) => {
        const floor = (units * list[i]!) / total
        expect(part === floor || part === floor + 1n).toBe(true)
      })
    }),
  )
})

it('gives ties to the earlier and nothing to a weight of zero', () => {
  expect(apportion(1n, [1n, 1n])).toEqual([1n, 0n])
  expect(apportion(100n, [1n, 1n, 1n])).toEqual([34n, 33n, 33n])
  expect(apportion(7n, [0n, 5n])).toEqual([0n, 7n])
  expect(() => apportion(7n, [0n])).toThrow('add up to zero')
  expect(() => apportion(7n, [-1n, 3n])).toThrow('negative')
})
