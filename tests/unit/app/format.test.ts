// Numbers are written one way, whatever the language of the machine.
import { expect, it } from 'vitest'
import * as of from '../../../app/utils/format'
import { isMoneyMeasure, measured, unitSign } from '../../../app/utils/measures'
import { amountSaid, money, quantity } from '../../../shared/words/amounts'

it('money stands to the minor unit of its currency, rounded half away from zero, with every digit before it', () => {
  expect(['1.005', '-1.005', '0', '-0.004', '1e0'].slice(0, 4).map(amount => money(amount, 'EUR'))).toEqual([
    '1.01',
    '−1.01',
    '0.00',
    '0.00',
  ])
  expect([money('1234.5', 'JPY'), money('1.2345', 'KWD'), of.whole('1234567.5')]).toEqual(['1,235', '1.235', '1,234,568'])
  // beyond what a float holds
  expect(money('90071992547409931234.565', 'EUR')).toBe('90,071,992,547,409,931,234.57')
  expect(['0', '0.000', '12', '-3.4'].map(amount => of.signedMoney(amount, 'EUR'))).toEqual(['–', '–', '+12.00', '−3.40'])
})

it('an amount is said with its currency, or with the unit of a quantity', () => {
  const said = (amount: string, currency: string) => amountSaid({ amount, currency })
  expect([said('1234.5', 'EUR'), said('-0.005', 'EUR'), said('1234.5', 'JPY'), said('1234.56789', 'GB'), said('-2', 'Hours')]).toEqual([
    '1,234.50 EUR',
    '−0.01 EUR',
    '1,235 JPY',
    '1,234.5679 GB',
    '−2 Hours',
  ])
})

it('numbers have as many decimals as they need, whatever was formatted before', () => {
  expect(of.count(1234567)).toBe('1,234,567')
  expect(quantity('1.23456')).toBe('1.2346')
  expect(of.count(3)).toBe('3')
  expect(['0.1', '-2', '1000.00004'].map(quantity)).toEqual(['0.1', '−2', '1,000'])
  expect(['0.000000000000001', '5', '-0.25'].map(of.fullPrice)).toEqual(['0.000000000000001', '5.00', '−0.25'])
})

it('shares are of what there is, or not defined', () => {
  expect([of.percent('1', '3'), of.percent('-1', '4'), of.percent('1', '0'), of.percent('0', '5')]).toEqual([
    '33.3 %',
    '−25.0 %',
    '–',
    '0.0 %',
  ])
  expect([of.changeShare('150', '100'), of.changeShare('-150', '-100'), of.changeShare('1', '0'), of.changeShare('0', '8')]).toEqual([
    0.5,
    -0.5,
    null,
    -1,
  ])
  expect([0.274, -0.274, 0].map(of.percentText)).toEqual(['+27.4 %', '−27.4 %', '0.0 %'])
})

it('currencies have their own sign where it is one, sizes their unit', () => {
  expect(['EUR', 'USD', 'NOK', 'CHF'].map(of.currencySign)).toEqual(['€', '$', 'NOK', 'CHF'])
  expect([0, 999, 1000, 1_250_000, 5e12].map(of.bytesText)).toEqual(['0 B', '999 B', '1 kB', '1.3 MB', '5,000 GB'])
})

it('figures stand as their measure has them', () => {
  expect([measured('1.005', 'EUR', 'billedCost'), measured('1.23456', 'GB', 'consumedQuantity')]).toEqual(['1.01', '1.2346'])
  expect(measured('0.123456789', 'EUR per GB', 'unitPrice')).toBe('0.12345679')
  expect([unitSign('EUR', 'listCost'), unitSign('GB', 'pricingQuantity')]).toEqual(['€', 'GB'])
  expect((['billedCost', 'savedAgainstList', 'unitPrice', 'pricingQuantity'] as const).map(isMoneyMeasure)).toEqual([
    true,
    true,
    false,
    false,
  ])
})
