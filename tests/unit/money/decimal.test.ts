import { expect, it } from 'vitest'
import { Decimal, decimalText, parseDecimal, sum } from '../../../core/money/decimal'
import { roundToMinor } from '../../../core/money/rounding'

it('adds and multiplies exactly', () => {
  expect(decimalText(sum(['0.1', '0.2'].map(t => new Decimal(t))))).toBe('0.3')
  expect(decimalText(new Decimal('0.0000166667').times('2232').times('0.3'))).toBe('0.01116002232')
})

it('writes in full and reads only numbers', () => {
  expect(decimalText(new Decimal('1e-12'))).toBe('0.000000000001')
  expect(parseDecimal('+3.50')?.toFixed()).toBe('3.5')
  const read = { '12': '12', '12.': '12', '.25': '0.25', '-0.5': '-0.5', '25e-1': '2.5', '1E+2': '100', '1e12': '1000000000000' }
  for (const [text, value] of Object.entries(read)) expect(parseDecimal(text)?.toFixed(), text).toBe(value)
  for (const wrong of ['', '.', '-', 'x', '1,0', '1e9999', '1e', '.x', '1ex', '1 ', ' 1', '1+1'])
    expect(parseDecimal(wrong), wrong).toBeNull()
})

it('rounds to the minor unit of the currency, half away from zero', () => {
  expect(roundToMinor(new Decimal('8.465'), 'EUR').toFixed()).toBe('8.47')
  expect(roundToMinor(new Decimal('-8.465'), 'EUR').toFixed()).toBe('-8.47')
  expect(roundToMinor(new Decimal('8.5'), 'JPY').toFixed()).toBe('9')
  expect(() => roundToMinor(new Decimal(1), 'XYZ')).toThrow('not an ISO 4217')
})
