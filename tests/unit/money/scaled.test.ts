import Big from 'big.js'
import fc from 'fast-check'
import { expect, it } from 'vitest'
import {
  dividedBy,
  parseScaled,
  quotientText,
  roundScaled,
  scaled,
  scaledText,
  sizeOf,
  sumOfTexts,
  timesDecimal,
} from '../../../core/money/scaled'

it('reads plain and exponent notation', () => {
  expect(parseScaled('12.5')).toEqual({ value: 12_500_000_000_000_000n, rounded: false })
  expect(parseScaled('1.5E-7')).toEqual({ value: 150_000_000n, rounded: false })
  expect(parseScaled('-.5')?.value).toBe(-500_000_000_000_000n)
  expect(parseScaled('2e3')?.value).toBe(2_000n * 10n ** 15n)
  for (const wrong of ['', '.', '-', '1,5', '1.2.3', 'NaN', 'Infinity', '0x10', ' 1', '1 ', '1e', '--1'])
    expect(parseScaled(wrong), wrong).toBeNull()
})

it('rounds beyond the fifteenth decimal half to even, and says so', () => {
  expect(parseScaled('0.0000000000000005')).toEqual({ value: 0n, rounded: true })
  expect(parseScaled('0.0000000000000015')).toEqual({ value: 2n, rounded: true })
  expect(parseScaled('0.0000000000000025')).toEqual({ value: 2n, rounded: true })
  expect(parseScaled('-0.00000000000000251')).toEqual({ value: -3n, rounded: true })
  expect(parseScaled('0.1000000000000000000')).toEqual({ value: 10n ** 14n, rounded: false })
})

it('writes what it reads', () => {
  fc.assert(
    fc.property(fc.bigInt(-(10n ** 24n), 10n ** 24n), value => {
      expect(scaled(scaledText(value))).toBe(value)
    }),
  )
})

it('rounds half away from zero to the minor unit', () => {
  expect(scaledText(roundScaled(scaled('2.345'), 2))).toBe('2.35')
  expect(scaledText(roundScaled(scaled('-2.345'), 2))).toBe('-2.35')
  expect(scaledText(roundScaled(scaled('2.3449999'), 2))).toBe('2.34')
  expect(scaledText(roundScaled(scaled('1234.5'), 0))).toBe('1235')
})

it('divides as a library for decimals does, rounding half away from zero', () => {
  expect(quotientText(1n, 8n, 2)).toBe('0.13')
  expect(quotientText(-1n, 8n, 2)).toBe('-0.13')
  expect(quotientText(1n, -3n, 6)).toBe('-0.333333')
  expect(quotientText(0n, -3n, 6)).toBe('0')
  const strict = Big()
  strict.DP = 60
  fc.assert(
    fc.property(
      fc.bigInt({ min: -(10n ** 24n), max: 10n ** 24n }),
      fc.bigInt({ min: -(10n ** 20n), max: 10n ** 20n }).filter(n => n !== 0n),
      fc.integer({ min: 0, max: 15 }),
      (part, whole, digits) => {
        expect(quotientText(part, whole, digits)).toBe(
          strict(String(part)).div(String(whole)).round(digits, Big.roundHalfUp).toFixed().replace(/^-0$/, '0'),
        )
      },
    ),
  )
})

it('refuses what is no amount of fifteen decimals, with the text', () => {
  for (const wrong of ['', '1,5', '0.0000000000000001'])
    expect(() => scaled(wrong)).toThrow(`not an amount of at most 15 decimals: ${wrong}`)
})

it('multiplies by a decimal, rounding half to even as a library for decimals does', () => {
  // worked out by hand: 0.000000000000005 × 0.5 = 0.0000000000000025, whose even neighbour is 2 of the last place; 15 × 0.5 = 7.5 goes to 8
  expect(timesDecimal(5n, 5n, 1)).toBe(2n)
  expect(timesDecimal(15n, 5n, 1)).toBe(8n)
  expect(timesDecimal(-5n, 5n, 1)).toBe(-2n)
  expect(timesDecimal(-15n, 5n, 1)).toBe(-8n)
  expect(timesDecimal(7n, 9n, 1)).toBe(6n)
  expect(timesDecimal(0n, -9n, 1)).toBe(0n)
  fc.assert(
    fc.property(
      fc.bigInt({ min: -(10n ** 24n), max: 10n ** 24n }),
      fc.bigInt({ min: -(10n ** 12n), max: 10n ** 12n }),
      fc.integer({ min: 0, max: 18 }),
      (amount, factor, digits) => {
        const exact = Big(String(amount)).times(String(factor)).times(`1e-${digits}`)
        expect(String(timesDecimal(amount, factor, digits))).toBe(exact.round(0, Big.roundHalfEven).toFixed().replace(/^-0$/, '0'))
      },
    ),
  )
})

it('divides by so many, half away from zero at the last digit, either way alike', () => {
  const by = (amount: string, many: number) => scaledText(dividedBy(scaled(amount), many))
  expect([by('1', 3), by('2', 3), by('-2', 3), by('0', 7), by('12', 1)]).toEqual([
    ...['0.333333333333333', '0.666666666666667', '-0.666666666666667', '0', '12'],
  ])
  // a half of the last digit
  expect([by('0.000000000000001', 2), by('-0.000000000000001', 2), by('0.000000000000001', 3)]).toEqual([
    ...['0.000000000000001', '-0.000000000000001', '0'],
  ])
  expect([sizeOf(-5n), sizeOf(5n), sizeOf(0n)]).toEqual([5n, 5n, 0n])
})

it('adds texts up exactly, whatever their size and sign', () => {
  const amount = fc.oneof(
    fc.bigInt({ min: -(10n ** 30n), max: 10n ** 30n }).map(scaledText),
    fc.constantFrom('0', '-0.000000000000001', '0.999999999999999', '-0.5', '1e3', '+7', '.5', '999999999999999.999999999999999'),
  )
  fc.assert(
    fc.property(fc.array(amount, { maxLength: 60 }), texts => {
      expect(sumOfTexts(texts)).toBe(texts.reduce((sum, text) => sum + scaled(text), 0n))
    }),
  )
  expect(sumOfTexts(Array<string>(20_000).fill('999999999999999.999999999999999'))).toBe(20_000n * (10n ** 30n - 1n))
  expect(sumOfTexts(Array<string>(20_000).fill('-999999999999999.999999999999999'))).toBe(-20_000n * (10n ** 30n - 1n))
  expect(() => sumOfTexts(['1', '1.0000000000000001'])).toThrow(RangeError)
})
