import { expect, it } from 'vitest'
import { distortionsOf } from '../../../core/spend/distortions'
import type { AnswerRow } from '../../../core/spend/question'

const row = (ChargeCategory: string | null, amount: string, currency = 'EUR'): AnswerRow => ({
  values: { ChargeCategory },
  ...{ start: null, amount, currency },
})
const said = (...rows: AnswerRow[]) => distortionsOf(rows, 'EUR').map(({ what, amount, usage }) => `${what} ${amount} of ${usage}`)

it('points out what is more than a tenth of the usage, to the last digit', () => {
  expect(said(row('Usage', '100'), row('Purchase', '10'), row('Tax', '10.000000000000001'))).toEqual(['tax 10.000000000000001 of 100'])
  expect(said(row('Usage', '60'), row('Usage', '40'), row('Purchase', '6'), row('Purchase', '5'), row('Tax', '-11'))).toEqual([
    'purchases 11 of 100',
    'tax 11 of 100',
  ])
})

it('credits and adjustments count together, and only where they take something off', () => {
  expect(said(row('Usage', '100'), row('Credit', '-8'), row('Adjustment', '-3'))).toEqual(['credits 11 of 100'])
  expect(said(row('Usage', '100'), row('Credit', '-20'), row('Adjustment', '30'))).toEqual([])
  expect(said(row('Usage', '-100'), row('Credit', '-20'))).toEqual(['credits 20 of 100'])
})

it('where nothing was used, anything stands out but nothing; other currencies have no part', () => {
  expect(said(row('Tax', '0.01'), row('Purchase', '0'), row('Credit', '0'))).toEqual(['tax 0.01 of 0'])
  expect(said(row('Usage', '100'), row('Tax', '50', 'USD'), row(null, '90'), row('constructor', '90'))).toEqual([])
  expect(said()).toEqual([])
})
