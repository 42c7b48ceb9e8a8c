// The 95th of a hundred hours, held against a general-purpose library for statistics and against the worked example of the nearest rank that
// textbooks give.
import fc from 'fast-check'
import { quantile as quantileOf } from 'simple-statistics'
import { expect, it } from 'vitest'
import { quantile } from '../../core/measured/quantile'

// Source: simple-statistics 7 in the registry. Where p · n is no whole number its quantile is the ⌈p · n⌉-th value, as ours is; where it is
// one, it takes the mean of two values for an even n, which another definition does: such n are left out.
it('is the value that simple-statistics finds, wherever the rank is no whole number', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 0, max: 1000 }), { minLength: 1, maxLength: 200 }),
      fc.integer({ min: 1, max: 99 }),
      (list, percent) => {
        fc.pre((list.length * percent) % 100 !== 0)
        expect(quantile(Float32Array.from(list), percent)).toBe(quantileOf(list, percent / 100))
      },
    ),
  )
})

// Source: the worked example of the nearest-rank method (five values 15, 20, 35, 40, 50), recalled from memory.
it('is what the worked example of the nearest rank says', () => {
  const values = Float32Array.of(15, 20, 35, 40, 50)
  expect([5, 30, 40, 50, 100].map(percent => quantile(values, percent))).toEqual([15, 20, 20, 35, 50])
})
