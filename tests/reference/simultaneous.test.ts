// Pools that serve each other, settled at once, against a linear solver of the registry.
import fc from 'fast-check'
import { Matrix, solve } from 'ml-matrix'
import { expect, it } from 'vitest'
import { simultaneous } from '../../core/allocation/simultaneous'

// Source: ml-matrix, LU and QR solver: x = amount + parts of what the others have.
it('gives what a numeric solver gives', () => {
  const weights = fc.array(fc.nat(50), { minLength: 6, maxLength: 6 })
  fc.assert(
    fc.property(
      fc.array(weights, { minLength: 5, maxLength: 5 }),
      fc.array(fc.integer({ min: -1_000_000, max: 1_000_000 }), { minLength: 5, maxLength: 5 }),
      (given, amounts) => {
        // of each pool something reaches cost centres at once
        const served = given.map(row => [...row.slice(0, 5), row[5]! + 1])
        const sums = served.map(row => row.reduce((a, b) => a + b, 0))
        const system = new Matrix(5, 5)
        for (let i = 0; i < 5; i++) for (let j = 0; j < 5; j++) system.set(i, j, (i === j ? 1 : 0) - served[j]![i]! / sums[j]!)
        const found = solve(system, Matrix.columnVector(amounts)).to1DArray()
        const { has, keeps, of } = simultaneous(
          amounts.map(amount => BigInt(amount)),
          served.map(row => row.map(weight => BigInt(weight))),
        )
        const exact = (value: bigint) => Number((value * 1_000_000n) / of) / 1_000_000
        found.forEach((value, i) => {
          expect(Math.abs(exact(has[i]!) - value)).toBeLessThan(1e-4 * Math.max(1, Math.abs(value)))
          expect(Math.abs(exact(keeps[i]!) - (value * served[i]![5]!) / sums[i]!)).toBeLessThan(1e-4 * Math.max(1, Math.abs(value)))
        })
        // all of it, to the last digit
        expect(keeps.reduce((a, b) => a + b, 0n)).toBe(of * BigInt(amounts.reduce((a, b) => a + b, 0)))
      },
    ),
  )
})
