// The regression behind a fixed and a variable part, against two libraries and a published table.
import fc from 'fast-check'
import { inverse, Matrix } from 'ml-matrix'
import { linearRegression, linearRegressionLine, rSquared } from 'simple-statistics'
import { expect, it } from 'vitest'
import { costBehaviour } from '../../core/unit-cost/cost-behaviour'
import { tQuantile } from '../../core/unit-cost/t-quantile'

// common practice, recalled from memory: the two-sided 95 % points of Student's t as handbooks' tables print them
const table = { 1: 12.706, 2: 4.303, 5: 2.571, 10: 2.228, 11: 2.201, 20: 2.086, 30: 2.042, 120: 1.98 }

it('takes the points of Student’s t that the tables print', () => {
  for (const [freedom, point] of Object.entries(table)) expect(tQuantile(0.975, Number(freedom))).toBeCloseTo(point, 2.5)
})

const cost = fc.double({ min: -1e6, max: 1e6, noNaN: true })
const points = fc
  .array(fc.record({ quantity: fc.integer({ min: 0, max: 1_000_000 }), cost }), { minLength: 12, maxLength: 40 })
  .filter(list => new Set(list.map(({ quantity }) => quantity)).size > 2)

it('finds the line that simple-statistics finds, and explains as much', () => {
  fc.assert(
    fc.property(points, list => {
      const found = costBehaviour(list)
      if ('why' in found) throw new Error(found.why)
      const pairs = list.map(({ quantity, cost }) => [quantity, cost])
      const { m, b } = linearRegression(pairs)
      const near = (own: number, other: number, scale: number) => expect(Math.abs(own - other)).toBeLessThanOrEqual(1e-6 * scale)
      near(found.variable.value, m, Math.max(1, Math.abs(m)))
      near(found.fixed.value, b, 1e6)
      near(found.explained, rSquared(pairs, linearRegressionLine({ m, b })), 1)
    }),
  )
})

it('gives the intervals that follow from the inverse of XᵀX, by ml-matrix', () => {
  const list = Array.from({ length: 13 }, (_, i) => ({
    quantity: 100 + 37 * ((i * 5) % 13),
    cost: 900 + 3.1 * (100 + 37 * ((i * 5) % 13)) + (i % 3) * 41,
  }))
  const x = new Matrix(list.map(({ quantity }) => [1, quantity]))
  const y = Matrix.columnVector(list.map(({ cost }) => cost))
  const covariance = inverse(x.transpose().mmul(x))
  const line = covariance.mmul(x.transpose()).mmul(y)
  const left = Matrix.sub(y, x.mmul(line))
  const variance = left.transpose().mmul(left).get(0, 0) / (13 - 2)
  const found = costBehaviour(list)
  if ('why' in found) throw new Error(found.why)
  for (const [place, part] of [found.fixed, found.variable].entries()) {
    const half = 2.200985 * Math.sqrt(variance * covariance.get(place, place))
    expect(part.value).toBeCloseTo(line.get(place, 0), 6)
    expect((part.high - part.low) / 2 / half).toBeCloseTo(1, 5)
  }
})
