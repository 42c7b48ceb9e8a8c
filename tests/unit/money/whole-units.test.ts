import fc from 'fast-check'
import { expect, it } from 'vitest'
import { minorUnit, scaled, scaledText, sizeOf } from '../../../core/money/scaled'
import { cutToAdd, inWholeUnits, largestOf } from '../../../core/money/whole-units'

const cut = (...amounts: string[]) => {
  const { parts, rest } = inWholeUnits(amounts.map(scaled), minorUnit(2))
  return [...parts.map(scaledText), `rest ${scaledText(rest)}`]
}

it('cuts amounts of any sign to whole units, and says what is beyond them', () => {
  expect(cut('6.673', '8.337')).toEqual(['6.67', '8.34', 'rest 0'])
  expect(cut('-6.673', '-8.337')).toEqual(['-6.67', '-8.34', 'rest 0'])
  // 5.01, which is 0.004 more than the two are together
  expect(cut('10.005', '-4.999')).toEqual(['10', '-4.99', 'rest -0.004'])
  expect(cut('0.005', '0.005', '0.005')).toEqual(['0.01', '0', '0', 'rest 0.005'])
  expect(cut()).toEqual(['rest 0'])
  expect(largestOf([1n, -5n, 5n, 0n])).toBe(1)
})

it('loses nothing, and moves no amount by a unit', () => {
  const amount = fc.bigInt({ min: -(10n ** 20n), max: 10n ** 20n })
  fc.assert(
    fc.property(fc.array(amount, { maxLength: 8 }), amounts => {
      const unit = minorUnit(2)
      const { parts, rest } = inWholeUnits(amounts, unit)
      const sum = (list: readonly bigint[]) => list.reduce((a, b) => a + b, 0n)
      expect(sum(parts) + rest).toBe(sum(amounts))
      expect(rest < unit && rest > -unit).toBe(true)
      parts.forEach((part, i) => {
        expect(part % unit).toBe(0n)
        const off = part - amounts[i]!
        expect(off < unit && off > -unit).toBe(true)
      })
    }),
  )
})

it('cuts to a sum that it is told: whole units, of which only the largest may be further off than one', () => {
  const unit = minorUnit(2)
  const amount = fc.bigInt({ min: -(10n ** 18n), max: 10n ** 18n })
  fc.assert(
    fc.property(fc.array(amount, { minLength: 1, maxLength: 9 }), fc.bigInt({ min: -3n, max: 3n }), (amounts, off) => {
      const target = (amounts.reduce((all, one) => all + one, 0n) / unit + off) * unit
      const parts = cutToAdd(amounts, target, unit)
      expect(parts.reduce((all, one) => all + one, 0n)).toBe(target)
      expect(parts.every(part => part % unit === 0n)).toBe(true)
      const isFar = (part: bigint, i: number) => sizeOf(part - amounts[i]!) >= unit
      expect(parts.filter(isFar).length).toBeLessThanOrEqual(1)
    }),
  )
  expect(cutToAdd([], 0n, unit)).toEqual([])
})
