import { expect, it } from 'vitest'
import { allocationPlanSchema } from '../../../core/allocation/plan'
import { settleInSlices } from '../../../core/allocation/settle'
import { toEnd } from '../../../core/spend/slices'
import { cubeOf, type PlainCharge } from '../../support/random-charges'

it('a way to divide that was added is read in a plan, divides, and says how', () => {
  const centres = ['a', 'b'].map(id => ({ id, name: id, parent: null, owner: null }))
  const rule = (id: string, values: string[]) => ({ id, target: id, conditions: [{ dimension: 'SubAccountName', values }] })
  const plan = allocationPlanSchema.parse({
    centres,
    pools: [{ id: 'p', name: 'Shared', method: 'machine hours', service: 'Machines' }],
    rules: [...centres.map(({ id }) => rule(id, [id])), rule('p', ['shared'])],
  })
  const charge = (account: string, quantity: string, amount: string): PlainCharge => ({
    ...{ day: '2026-10-01', hour: 0, currency: 'EUR', billedIn: '2026-10', tags: {}, amount, quantity },
    values: { SubAccountName: account, ServiceName: 'Machines', PricingUnit: 'Hours', ChargeCategory: 'Usage' },
  })
  const cube = cubeOf([charge('a', '10', '1'), charge('b', '30', '1'), charge('shared', '5', '8')])
  const question = { month: '2026-10', measure: 'billedCost', reportCurrency: null, rates: [] } as const
  const { statements } = toEnd(settleInSlices(cube, plan, question))
  expect(statements.map(({ centre, shared }) => [centre, shared])).toEqual([
    ['b', '6'],
    ['a', '2'],
  ])
  expect(statements[0]!.lines.at(-1)).toMatchObject({ kind: 'share', label: 'by hours of Machines' })
})
