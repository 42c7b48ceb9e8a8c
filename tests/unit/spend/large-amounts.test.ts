// Amounts up to 10¹⁵ with fifteen decimals, in one charge and in sums, against sums of whole numbers of any size.
import fc from 'fast-check'
import { expect, it } from 'vitest'
import { parseScaled, scaledText, type Scaled } from '../../../core/money/scaled'
import { answer } from '../../../core/spend/answer'
import { plainGroups } from '../../../core/spend/plain-groups'
import { segmentSums } from '../../../core/spend/segment-sums'
import type { Question } from '../../../core/spend/question'
import { fileColumns } from '../../../demo/focus-file'
import { charge } from '../../support/charges'
import { take } from '../../support/intake'
import { cubeOf, plainCharge, valueOf } from '../../support/random-charges'

const MOST = 10n ** 30n
const anyAmount = fc
  .oneof(
    fc.bigInt(-MOST, MOST),
    fc.bigInt(-(10n ** 20n), 10n ** 20n),
    fc.constantFrom(MOST, -MOST, MOST - 1n, 1n, -1n, 0n, 2n ** 52n * 10n ** 9n + 1n),
  )
  .map(scaledText)
const all = { start: '2026-01-01', end: '2027-01-01', keep: {}, leaveOut: {} }
const exact = (text: string): Scaled => parseScaled(text)!.value

it('one charge of the largest amount, and a thousand of them', () => {
  const largest = '999999999999999.999999999999999'
  const many = Array.from({ length: 1000 }, () => ({ day: '2026-09-01', hour: 0, currency: 'EUR', amount: largest, values: {}, tags: {} }))
  const question: Question = { measure: 'billedCost', splitBy: [], grain: null, ...all }
  expect(answer(cubeOf(many.slice(0, 1)), question).totals).toEqual([{ currency: 'EUR', amount: largest }])
  expect(answer(cubeOf(many), question).totals).toEqual([{ currency: 'EUR', amount: '999999999999999999.999999999999' }])
})

it('sums of amounts of any size are exact, however they are split', () => {
  const large = fc.tuple(plainCharge, anyAmount, anyAmount).map(([plain, amount, quantity]) => ({ ...plain, amount, quantity }))
  fc.assert(
    fc.property(fc.array(large, { maxLength: 60 }), fc.constantFrom('ServiceName', 'ResourceId', 'Tags/team'), (charges, dimension) => {
      const cube = cubeOf(charges)
      const sums = new Map<string, [Scaled, Scaled]>()
      for (const one of charges) {
        const key = JSON.stringify([valueOf(one, dimension), one.currency])
        const [cost, quantity] = sums.get(key) ?? [0n, 0n]
        sums.set(key, [cost + exact(one.amount), quantity + exact(one.quantity)])
      }
      const groups = plainGroups(cube, { ...all, splitBy: [dimension], grain: null, measures: ['billedCost', 'pricingQuantity'] })
      expect(new Map(groups.map(g => [JSON.stringify([g.values[dimension], g.currency]), g.amounts]))).toEqual(sums)
      expect(groups.reduce((n, g) => n + g.count, 0)).toBe(charges.length)
      const whole = segmentSums([...cube.segments()], cube.currencies)
      for (const { currency, billed } of whole)
        expect(billed).toBe(charges.filter(c => c.currency === currency).reduce((n, c) => n + exact(c.amount), 0n))
    }),
    { numRuns: 150 },
  )
})

it('a file’s amount of up to 10¹⁵ is taken as it stands, as text and as bytes; a larger one is refused', () => {
  const names = ['BilledCost', 'PricingQuantity'] as const
  const rows = [
    charge({ BilledCost: '1000000000000000', PricingQuantity: '123456789012345.000000000000001' }),
    charge({ BilledCost: '-999999999999999.999999999999999' }),
    charge({ BilledCost: '0.000000000000001' }),
  ]
  const columns = [...new Set([...fileColumns, ...Object.keys(rows[0]!)])]
  const cells = rows.map(row => columns.map(name => String((row as Record<string, unknown>)[name] ?? '')))
  for (const way of ['text', 'bytes', 'file'] as const) {
    const { charges, problems } = take(columns, cells, way)
    expect(problems).toEqual([])
    expect(charges.map(({ amounts }) => names.map(name => scaledText(amounts[name]!)))).toEqual([
      ['1000000000000000', '123456789012345.000000000000001'],
      ['-999999999999999.999999999999999', '24'],
      ['0.000000000000001', '24'],
    ])
  }
  const refused = take(columns, [columns.map((name, i) => (name === 'BilledCost' ? '1000000000000000.1' : cells[0]![i]!))])
  expect(refused.problems).toMatchObject([{ column: 'BilledCost', reason: 'larger than 1000000000000000' }])
})
