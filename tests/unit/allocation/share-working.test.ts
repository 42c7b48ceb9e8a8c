import { expect, it } from 'vitest'
import { shareWorking } from '../../../core/allocation/share-working'
import type { StatementLine } from '../../../core/allocation/statement'
import { decimalText } from '../../../core/money/decimal'
import { evaluate, type Working } from '../../../core/working/working'

type Shared = Extract<StatementLine, { kind: 'share' }>
const line = (amount: string, more: Partial<Shared> = {}): Shared => ({
  ...{ kind: 'share', pool: 'Platform', poolId: 'p', label: 'divided evenly', amount, ofPool: '100.01', note: null },
  base: { borne: '100.01', part: '1', of: '3', unit: 'even parts' },
  ...more,
})
const put = [
  { words: 'account is platform-live', amount: '90' },
  { words: 'tag team is none', amount: '10.01' },
]
/** Inputs of the tree by their labels. */
const inputs = (working: Working): Record<string, string> =>
  working.op === 'input' ? { [working.label]: working.value } : Object.assign({}, ...working.parts.map(inputs))

it('a share is its part of the base, cut, and the cent that largest remainders give it', () => {
  // 100.01 by 3 is 33.336666…: 33.33 each, and two cents left for the first two
  const working = shareWorking(line('33.34'), put, 'EUR', 2)!
  expect(decimalText(evaluate(working))).toBe('33.34')
  expect(inputs(working)).toEqual({
    'account is platform-live': '90',
    'tag team is none': '10.01',
    'its part of the base': '1',
    'the base of all': '3',
    'cut to whole minor units': '-0.00666666666666666667',
    'of what that leaves over, by largest remainders': '0.01',
    'below a minor unit, with the largest share': '0',
  })
  expect(inputs(shareWorking(line('33.33'), put, 'EUR', 2)!)['of what that leaves over, by largest remainders']).toBe('0')
})

it('what a pool has below a minor unit is kept back, and goes with the largest share', () => {
  // 100.014: 100.01 is divided 3 : 1 into 75.0075 and 25.0025; one cent left, for 75.00|75, then the 0.004
  const base = { borne: '100.014', part: '3', of: '4', unit: 'EUR direct' }
  const working = shareWorking(line('75.014', { ofPool: '100.014', base }), [{ words: 'all', amount: '100.014' }], 'EUR', 2)!
  expect(decimalText(evaluate(working))).toBe('75.014')
  expect(inputs(working)).toMatchObject({
    'below a minor unit': '0.004',
    'cut to whole minor units': '-0.0075',
    'of what that leaves over, by largest remainders': '0.01',
    'below a minor unit, with the largest share': '0.004',
  })
})

it('says what other pools serve it with and what it serves them with; what is given back is divided like what is owed', () => {
  const base = { borne: '60', part: '0.5', of: '2', unit: 'shares' }
  const working = shareWorking(line('15', { ofPool: '130.01', base }), put, 'EUR', 2)!
  expect(inputs(working)).toMatchObject({ 'from pools that serve it': '30', 'to pools that it serves, and to cut to minor units': '70.01' })
  expect(decimalText(evaluate(working))).toBe('15')
  const credit = { borne: '-0.05', part: '1', of: '2', unit: 'even parts' }
  // five cents back between two: -0.03 and -0.02
  const back = shareWorking(line('-0.03', { ofPool: '-0.05', base: credit }), [{ words: 'all', amount: '-0.05' }], 'EUR', 2)!
  expect(inputs(back)).toMatchObject({ 'cut to whole minor units': '0.005', 'of what that leaves over, by largest remainders': '-0.01' })
})

it('has no Workings where the base is not told', () => {
  expect(shareWorking(line('1', { base: null }), put, 'EUR', 2)).toBeNull()
  expect(shareWorking(line('1', { base: undefined }), put, 'EUR', 2)).toBeNull()
  expect(shareWorking(line('1', { ofPool: null }), put, 'EUR', 2)).toBeNull()
})
