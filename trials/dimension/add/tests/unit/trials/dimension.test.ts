import { expect, it } from 'vitest'
import { answer } from '../../../core/spend/answer'
import { foundDimensions, isRuleDimension } from '../../../core/spend/dimensions'
import { readSentence } from '../../../core/spend/sentence-address'
import { dimensionGroup, dimensionLabel, valueLabel } from '../../../shared/words/dimensions'
import { cubeOf, type PlainCharge } from '../../support/random-charges'

it('a dimension that was added splits, narrows, is listed, is named, and is what rules and addresses may use', () => {
  const charge = (name: string | null, amount: string): PlainCharge => ({
    ...{ day: '2026-10-01', hour: 0, currency: 'EUR', billedIn: '2026-10', tags: {}, amount },
    values: { ResourceName: name, ResourceId: name, ChargeCategory: 'Usage' },
  })
  const cube = cubeOf([charge('crew-db', '1'), charge('crew-web', '2'), charge('deck-db', '4'), charge(null, '8')])
  const period = { start: '2026-10-01', end: '2026-11-01' }
  const { rows } = answer(cube, {
    ...{ measure: 'billedCost', splitBy: ['NameBeginning'], grain: null, leaveOut: {}, conditions: [], ...period },
    keep: { NameBeginning: ['crew', null] },
  })
  expect(rows.map(({ values, amount }) => [valueLabel('NameBeginning', Object.values(values)[0] as never), amount])).toMatchObject([
    ['without a name', '8'],
    ['crew', '3'],
  ])
  expect(foundDimensions(cube)).toContain('NameBeginning')
  expect([dimensionLabel('NameBeginning'), dimensionGroup('NameBeginning')]).toEqual(['beginning of the name', 'resources and places'])
  expect(isRuleDimension('NameBeginning')).toBe(true)
  expect(readSentence({ by: 'NameBeginning' }).splitBy).toEqual(['NameBeginning'])
})
