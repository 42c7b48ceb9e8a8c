import { expect, it } from 'vitest'
import { answer } from '../../../core/spend/answer'
import { foundDimensions, isRuleDimension } from '../../../core/spend/dimensions'
import { readView } from '../../../core/spend/view'
import { dimensionGroup, dimensionLabel, valueLabel } from '../../../shared/words/dimensions'
import { cubeOf } from '../../support/random-charges'

it('a dimension that was added splits, narrows, is listed, is named, and is what rules and addresses may use', () => {
  const charge = (name: string | null, cost: string) => ({
    ...{ day: '2026-10-01', hour: 0, currency: 'EUR', amounts: [cost, cost, cost, cost], pricingQuantity: null, consumedQuantity: null },
    values: { ResourceName: name, ResourceId: name, ChargeCategory: 'Usage' },
    tags: {},
  })
  const cube = cubeOf([charge('crew-db', '1'), charge('crew-web', '2'), charge('deck-db', '4'), charge(null, '8')] as never)
  const scope = { start: '2026-10-01', end: '2026-11-01', leaveOut: {}, conditions: [] }
  const asked = {
    measure: 'billedCost',
    splitBy: ['NameBeginning'],
    grain: null,
    ...scope,
    keep: { NameBeginning: ['crew', null] },
  } as const
  const { rows } = answer(cube, asked as never)
  expect(rows.map(({ values, amounts }) => [valueLabel('NameBeginning', Object.values(values)[0] as never), amounts])).toMatchObject([
    ['without a name', ['8']],
    ['crew', ['3']],
  ])
  expect(foundDimensions(cube)).toContain('NameBeginning')
  expect([dimensionLabel('NameBeginning'), dimensionGroup('NameBeginning')]).toEqual(['beginning of the name', 'resources and places'])
  expect(isRuleDimension('NameBeginning')).toBe(true)
  expect(readView({ by: 'NameBeginning' }).view).not.toBeNull()
})
