import { expect, it } from 'vitest'
import { currencyPeriod, isCurrency, isCurrencyOn, minorDecimals, wasCurrency } from '../../../core/money/currency'

it('a currency is one on the days between its first and the day before it was withdrawn', () => {
  // Croatia took the euro on 1 January 2023: a published date
  expect([isCurrencyOn('HRK', '2022-12-31'), isCurrencyOn('HRK', '2023-01-01')]).toEqual([true, false])
  // the new Turkish lira began on 1 January 2005: a published date
  expect([isCurrencyOn('TRY', '2004-12-31'), isCurrencyOn('TRY', '2005-01-01')]).toEqual([false, true])
  expect([isCurrencyOn('VEF', '2007-12-31'), isCurrencyOn('VEF', '2008-01-01'), isCurrencyOn('VEF', '2018-12-01')]).toEqual([
    false,
    true,
    false,
  ])
  expect([isCurrencyOn('EUR', '2000-01-01'), isCurrencyOn('EUR', '2100-12-31')]).toEqual([true, true])
  for (const code of ['XYZ', '', 'constructor', 'eur']) expect(isCurrencyOn(code, '2026-10-01'), code).toBe(false)
})

it('tells what is in use from what was', () => {
  expect([isCurrency('HRK'), wasCurrency('HRK'), isCurrency('EUR'), wasCurrency('EUR'), wasCurrency('XYZ')]).toEqual([
    false,
    true,
    true,
    true,
    false,
  ])
  expect(currencyPeriod('EUR')).toEqual({ from: null, until: null })
  expect(currencyPeriod('HRK')).toEqual({ from: null, until: '2023-01-01' })
  expect([minorDecimals('HRK'), minorDecimals('BYR'), minorDecimals('KWD'), minorDecimals('CLF')]).toEqual([2, 0, 3, 4])
})
