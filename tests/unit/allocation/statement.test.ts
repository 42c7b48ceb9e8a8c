import { expect, it } from 'vitest'
import { borneOf, prove, type Statement } from '../../../core/allocation/statement'

const statement = (centre: string, currency: string, direct: string, shared: string, total: string): Statement => ({
  ...{ centre, currency, direct, shared, total },
  lines: [],
})

it('what statements have together stands by currency, the largest total first, equal ones by name', () => {
  expect(
    borneOf([
      statement('a', 'USD', '3', '0.5', '3.5'),
      statement('b', 'EUR', '1', '2', '3'),
      statement('a', 'EUR', '0.25', '0.25', '0.5'),
      statement('b', 'CHF', '100', '-1', '99'),
    ]),
  ).toEqual([
    { currency: 'CHF', direct: '100', shared: '-1', total: '99' },
    { currency: 'EUR', direct: '1.25', shared: '2.25', total: '3.5' },
    { currency: 'USD', direct: '3', shared: '0.5', total: '3.5' },
  ])
  const order = (...totals: [string, string][]) =>
    borneOf(totals.map(([currency, total]) => statement('a', currency, '0', '0', total))).map(({ currency }) => currency)
  // 10 is more than 9, and less than nothing is less
  expect(order(['A', '9'], ['B', '10'], ['C', '-20'])).toEqual(['B', 'A', 'C'])
  expect(order(['B', '1'], ['A', '1'])).toEqual(['A', 'B'])
  expect(borneOf([])).toEqual([])
})

it('the proof stands by currency and holds each side against the other', () => {
  const own: Statement = {
    ...statement('a', 'USD', '5', '2', '7'),
    lines: [
      { kind: 'direct', service: 's', amount: '5' },
      { kind: 'share', pool: 'p', poolId: 'p', label: 'l', amount: '2', ofPool: '4', note: null },
    ],
  }
  const unallocated = [{ currency: 'EUR', amount: '1' }]
  const bill = [
    { currency: 'USD', amount: '7' },
    { currency: 'EUR', amount: '1.000000000000001' },
    { currency: 'CHF', amount: '0' },
  ]
  expect(prove([own], unallocated, bill)).toEqual([
    { currency: 'CHF', bill: '0', direct: '0', shared: '0', unallocated: '0', equal: true },
    { currency: 'EUR', bill: '1.000000000000001', direct: '0', shared: '0', unallocated: '1', equal: false },
    { currency: 'USD', bill: '7', direct: '5', shared: '2', unallocated: '0', equal: true },
  ])
})
