import { expect, it } from 'vitest'
import type { AnswerRow } from '../../../core/spend/question'
import { judgeTag, requiredTagScope, type RequiredTag } from '../../../core/spend/required-tags'

const rule: RequiredTag = { key: 'env', sources: [], subAccounts: [], values: ['live', 'rehearsal'] }
const row = (value: string | null, centre: string | null, amount: string, more: Partial<AnswerRow> = {}): AnswerRow => ({
  ...{ values: { 'Tags/env': value, CostCentre: centre, SubAccountName: 'a' }, start: '2026-10-01', currency: 'EUR', amount },
  ...more,
})
const rows = [
  row('live', 'ours', '10'),
  row('Live', 'ours', '2.5'),
  row(null, 'ours', '1'),
  row(null, null, '4', { start: '2026-11-01' }),
  row('constructor', null, '0.5', { start: '2026-11-01' }),
  row('rehearsal', null, '7', { start: '2026-11-01' }),
  row(null, 'ours', '-3', { start: '2026-11-01' }),
  row(null, 'ours', '1000', { currency: 'USD' }),
]

it('tells what lacks the tag and what has a value that it may not have, whose it is, and how it went', () => {
  expect(judgeTag(rows, rule, 'EUR')).toEqual({
    // 10 + 2.5 + 1 + 4 + 0.5 + 7 - 3; 2.5 + 1 + 4 + 0.5 - 3; 4 + 0.5 on no cost centre
    ...{ whole: '22', failing: '5', unplaced: '4.5' },
    steps: [
      { start: '2026-10-01', whole: '13.5', missing: '1', wrong: '2.5' },
      { start: '2026-11-01', whole: '8.5', missing: '1', wrong: '0.5' },
    ],
    who: [
      { centre: null, subAccount: 'a', failing: '4.5', missing: '4', wrong: '0.5' },
      { centre: 'ours', subAccount: 'a', failing: '0.5', missing: '-2', wrong: '2.5' },
    ],
    wrongValues: [
      { value: 'Live', amount: '2.5' },
      { value: 'constructor', amount: '0.5' },
    ],
  })
})

it('allows any value where none is named, and keeps currencies apart', () => {
  expect(judgeTag(rows, { ...rule, values: [] }, 'EUR')).toMatchObject({ failing: '2', wrongValues: [] })
  expect(judgeTag(rows, rule, 'USD')).toMatchObject({ whole: '1000', failing: '1000', unplaced: '0' })
  expect(judgeTag([], rule, 'EUR')).toEqual({ whole: '0', failing: '0', unplaced: '0', steps: [], who: [], wrongValues: [] })
})

it('looks at usage of the sources and sub accounts that it is required of', () => {
  expect(requiredTagScope(rule)).toEqual({ keep: { ChargeCategory: ['Usage'] }, splitBy: ['Tags/env', 'CostCentre', 'SubAccountName'] })
  expect(requiredTagScope({ ...rule, sources: ['bill'], subAccounts: ['a', 'b'] }).keep).toEqual({
    ...{ ChargeCategory: ['Usage'], Source: ['bill'], SubAccountName: ['a', 'b'] },
  })
})
