import { expect, it } from 'vitest'
import { addTexts, divideText, isAboveZero, roundText, sizeText, subtractTexts } from '../../../core/money/amount-text'

it('computes on decimal text exactly', () => {
  expect(addTexts([])).toBe('0')
  expect(addTexts(['0.1', '0.2', '-0.000000000000001'])).toBe('0.299999999999999')
  expect(subtractTexts('1', '1.000000000000001')).toBe('-0.000000000000001')
  expect(divideText('10', 3)).toBe('3.333333333333333')
  expect(divideText('-0.0000000000000025', 5)).toBe('-0.000000000000001')
  expect(roundText('1.00000000000000049')).toBe('1')
  expect(sizeText('-2.5')).toBe('2.5')
  expect(['0.000000000000001', '0', '0.00', '-1'].map(isAboveZero)).toEqual([true, false, false, false])
})
