import { expect, it } from 'vitest'
import { commitmentLines } from '../../../core/spend/commitment-lines'
import type { AnswerRow } from '../../../core/spend/question'

const row = (id: string | null, more: Record<string, string | null>, start: string, amount: string, currency = 'EUR'): AnswerRow => ({
  values: { CommitmentDiscountId: id, CommitmentDiscountName: id && `The ${id}`, ChargeCategory: 'Usage', ...more },
  ...{ start, amount, currency },
})
const bought = { ChargeCategory: 'Purchase' }

it('sets what was billed beside what it covers, to the last digit, month by month, in each currency by itself', () => {
  // by hand: c1 is bought for 12 in October, covers 5.000000000000001 of use, 0.4 of it unused, and has a fee of 1 in September
  const { lines, totals } = commitmentLines(
    [
      row('c1', bought, '2026-10-01', '12'),
      row('c1', {}, '2026-09-01', '1'),
      row('c1', bought, '2026-10-01', '3', 'USD'),
      row(null, {}, '2026-10-01', '100'),
      row(null, bought, '2026-10-01', '7'),
    ],
    [
      row('c1', { CommitmentDiscountStatus: 'Used' }, '2026-10-01', '5.000000000000001'),
      row('c1', { CommitmentDiscountStatus: 'Unused' }, '2026-10-01', '0.4'),
      row('c1', {}, '2026-09-01', '1'),
      row('constructor', { CommitmentDiscountStatus: 'Used', CommitmentDiscountName: null }, '2026-10-01', '2'),
      row(null, {}, '2026-10-01', '107'),
    ],
  )
  expect(lines.map(({ id, name, currency, why }) => [id, name, currency, why])).toEqual([
    ['c1', 'The c1', 'EUR', 'paid in this period for later use'],
    ['c1', 'The c1', 'USD', 'paid in this period for later use'],
    ['constructor', 'constructor', 'EUR', 'paid for before this period, or less paid in it than used'],
    ['', 'everything else', 'EUR', 'as billed'],
  ])
  const { purchased, billedOther, billed, used, unused, other, effective, difference, months } = lines[0]!
  expect([purchased, billedOther, billed]).toEqual(['12', '1', '13'])
  expect([used, unused, other, effective, difference]).toEqual(['5.000000000000001', '0.4', '1', '6.400000000000001', '-6.599999999999999'])
  expect(months).toEqual([
    { start: '2026-09-01', billed: '1', effective: '1' },
    { start: '2026-10-01', billed: '12', effective: '5.400000000000001' },
  ])
  // what nothing covers has no purchase of a commitment: it is billed like everything else
  expect(lines[3]).toMatchObject({ purchased: '0', billedOther: '107', effective: '107', difference: '0' })
  expect(totals.map(({ currency, billed, effective, difference, unused }) => [currency, billed, effective, difference, unused])).toEqual([
    ['EUR', '120', '115.400000000000001', '-4.599999999999999', '0.4'],
    ['USD', '3', '0', '-3', '0'],
  ])
})

it('has words for what is paid as it is used, and for what a provider reports otherwise', () => {
  const why = (id: string | null, billed: string, effective: string) =>
    commitmentLines([row(id, {}, '2026-10-01', billed)], [row(id, {}, '2026-10-01', effective)]).lines[0]!.why
  expect([why('c', '5', '5'), why(null, '5', '4')]).toEqual([
    'paid as it is used',
    'effective cost that the provider reports otherwise than billed',
  ])
  expect(commitmentLines([], [])).toEqual({ lines: [], totals: [] })
})
