// ISO 4217 as the package currency-codes (MIT) has it from the published list.
import codes from 'currency-codes'
import { expect, it } from 'vitest'
import { currencies, isCurrency, minorDecimals } from '../../core/money/currency'

// not money one is billed in: metals, bond units, test and no currency, and units of account that the package gives no exponent
const noMoney = new Set(['XAU', 'XAG', 'XPT', 'XPD', 'XBA', 'XBB', 'XBC', 'XBD', 'XTS', 'XXX', 'XDR', 'XSU', 'XUA'])

it('knows every currency in use with the decimals of its minor unit', () => {
  const differing = codes.data
    .filter(({ code, digits }) => !noMoney.has(code) && isCurrency(code) && minorDecimals(code) !== digits)
    .map(({ code }) => code)
  expect(differing).toEqual([])
  // newer or older than the package's list, each checked against the amendments: withdrawn since, or introduced since
  const retired = new Set(['ANG', 'BGN', 'CUC', 'HRK', 'SLL', 'VED', 'XCG', 'ZWL', 'ZWG', 'CNH'])
  expect(codes.codes().filter(code => !noMoney.has(code) && !isCurrency(code) && !retired.has(code))).toEqual([])
  expect(currencies.filter(code => !codes.code(code) && !retired.has(code) && !['CNH', 'USN', 'UYW', 'CLF'].includes(code))).toEqual([])
})
