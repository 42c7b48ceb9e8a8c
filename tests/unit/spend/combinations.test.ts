import fc from 'fast-check'
import { expect, it } from 'vitest'
import { combinationsOf } from '../../../core/spend/combinations'

it('numbers combinations as they are first met, however many there could be', () => {
  fc.assert(
    fc.property(
      fc
        .array(fc.constantFrom(1, 3, 2000, 2 ** 20, 2 ** 31), { minLength: 1, maxLength: 4 })
        .chain(sizes =>
          fc.tuple(
            fc.constant(sizes),
            fc.array(fc.tuple(...sizes.map(size => fc.oneof(fc.integer({ min: 0, max: size - 1 }), fc.constantFrom(0, size - 1)))), {
              maxLength: 40,
            }),
          ),
        ),
      ([sizes, items]) => {
        const { of, first } = combinationsOf(
          sizes.map((size, i) => ({ size, codes: items.map(item => item[i]!) })),
          items.length,
        )
        const names = items.map(item => item.join())
        const distinct = [...new Set(names)]
        expect([...of]).toEqual(names.map(name => distinct.indexOf(name)))
        expect([...first]).toEqual(distinct.map(name => names.indexOf(name)))
      },
    ),
    { numRuns: 300 },
  )
})
