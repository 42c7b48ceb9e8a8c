import { expect, it } from 'vitest'
import type { AnswerRow } from '../../../core/spend/question'
import { tagSums, valueSums } from '../../../core/spend/tag-sums'

const row = (value: string | null, from: string | null, amount: string, currency = 'EUR'): AnswerRow => ({
  values: { 'Tags/team': value, 'TagsFrom/team': from },
  ...{ start: null, amount, currency },
})
const rows = [
  row('ferry', 'own', '1.000000000000001'),
  row('ferry', 'account', '2'),
  row('constructor', 'container', '4'),
  row('crew', 'own', '-0.5'),
  row(null, null, '8'),
  row('ferry', 'own', '1000', 'USD'),
]

it('tells own from inherited from missing, in one currency, and counts values once', () => {
  expect(tagSums(rows, 'team', 'EUR')).toEqual({
    ...{ tagged: '0.500000000000001', inherited: '6', untagged: '8' },
    ...{ whole: '14.500000000000001', values: 3 },
  })
  expect(tagSums(rows, 'team', 'CHF')).toEqual({ tagged: '0', inherited: '0', untagged: '0', whole: '0', values: 0 })
})

it('adds values up, the largest first, apart by the last digit', () => {
  expect(valueSums(rows, 'Tags/team', 'EUR')).toEqual([
    { value: 'constructor', amount: '4' },
    { value: 'ferry', amount: '3.000000000000001' },
    { value: 'crew', amount: '-0.5' },
  ])
  const close = [row('a', 'own', '100000000000000'), row('b', 'own', '100000000000000.000000000000001')]
  expect(valueSums(close, 'Tags/team', 'EUR').map(({ value }) => value)).toEqual(['b', 'a'])
})
