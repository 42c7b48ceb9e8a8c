import { expect, it } from 'vitest'
import { mainTotal } from '../../../core/money/main-total'

const totals = (...amounts: string[]) => amounts.map(text => ({ amount: text.split(' ')[0]!, currency: text.split(' ')[1]! }))

it.each([
  [totals('8260.13 EUR', '19109.24 NOK'), 'EUR', 'EUR'],
  [totals('8260.13 EUR', '19109.24 NOK'), null, 'NOK'],
  [totals('8260.13 EUR', '19109.24 NOK'), 'GBP', 'NOK'],
  // a credit is as large as a cost
  [totals('1 EUR', '-2 USD'), null, 'USD'],
  // what numbers with a point cannot tell apart
  [totals('9007199254740993.1 EUR', '9007199254740993.2 USD'), null, 'USD'],
  [totals('0 EUR', '0 USD'), null, 'EUR'],
  [totals('5 constructor'), 'toString', 'constructor'],
  [[], 'EUR', null],
])('of %j, reporting in %s, %s comes first', (all, reportCurrency, first) => {
  expect(mainTotal(all, reportCurrency)?.currency ?? null).toBe(first)
})
