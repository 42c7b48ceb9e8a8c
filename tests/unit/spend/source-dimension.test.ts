// By the name under which charges were delivered: in Spend, in rules, and in a part of the company.
import { expect, it } from 'vitest'
import { chargesWithin } from '../../../core/allocation/bound'
import { centreCoding } from '../../../core/allocation/centre-coding'
import type { AllocationPlan } from '../../../core/allocation/plan'
import { settleInSlices } from '../../../core/allocation/settle'
import { answer } from '../../../core/spend/answer'
import { dimensionOf } from '../../../core/spend/dimensions'
import { toEnd } from '../../../core/spend/slices'
import { cubeOf, oneCharge } from '../../support/random-charges'

const charges = [
  oneCharge({ source: 'vendor seats', amount: '3', tags: { team: 'a' } }),
  oneCharge({ source: 'constructor', amount: '5' }),
  oneCharge({ source: 'vendor seats', amount: '2', billedIn: '2026-10', day: '2026-10-02' }),
]
const always = { start: '2000-01-01', end: '2100-01-01', keep: {}, leaveOut: {}, grain: null, measure: 'billedCost' as const }
const plan: AllocationPlan = {
  centres: [{ id: 'seats', name: 'Seats', parent: null, owner: null }],
  pools: [],
  rules: [{ id: 'r', conditions: [{ dimension: 'Source', values: ['vendor seats', 'gone'] }], target: 'seats' }],
}

it('charges are split, narrowed and put on cost centres by it, and it follows what is delivered', () => {
  const cube = cubeOf(charges)
  const bySource = () => answer(cube, { ...always, splitBy: ['Source'] }).rows.map(row => [row.values.Source, row.amount])
  expect(bySource()).toEqual([
    ['constructor', '5'],
    ['vendor seats', '5'],
  ])
  expect(answer(cube, { ...always, splitBy: [], keep: { Source: ['vendor seats'] } }).totals).toEqual([{ currency: 'EUR', amount: '5' }])
  const settled = toEnd(settleInSlices(cube, plan, { month: '2026-09', measure: 'billedCost', reportCurrency: null, rates: [] }))
  expect(settled.statements.map(({ centre, total }) => [centre, total])).toEqual([['seats', '3']])
  expect(settled.unallocated.map(({ values, amount }) => [values.Source, amount])).toEqual([['constructor', '5']])
  cube.removePeriod('constructor', [...cube.periods.values()].find(({ source }) => source === 'constructor')!.billingPeriodStart)
  expect(bySource()).toEqual([['vendor seats', '5']])
  expect(dimensionOf('Source')).toMatchObject({ label: 'source of the delivery', changesWithCharges: true })
})

it('whoever sees a part of the company sees the sources of that part', () => {
  const cube = cubeOf(charges)
  cube.setCentres((own, tree, shows) => centreCoding({ newest: plan, closed: {} }, tree, dimension => own.coding(dimension), shows))
  const part = chargesWithin(cube, plan.centres, { centres: ['seats'] }).cube
  expect(part.coding('Source').values).toEqual([null, 'vendor seats'])
  expect(cube.coding('Source').values).toEqual([null, 'constructor', 'vendor seats'])
})
