import fc from 'fast-check'
import { expect, it } from 'vitest'
import { centreCoding, noPlans, type Plans } from '../../../core/allocation/centre-coding'
import type { AllocationPlan } from '../../../core/allocation/plan'
import { settleInSlices } from '../../../core/allocation/settle'
import { scaled, scaledText } from '../../../core/money/scaled'
import { answer } from '../../../core/spend/answer'
import type { Cube } from '../../../core/spend/cube'
import { toEnd } from '../../../core/spend/slices'
import { emptyReference } from '../../../core/spend/reference'
import { cubeOf, plainCharge, type PlainCharge } from '../../support/random-charges'

const centre = (id: string, parent: string | null = 'root') => ({ id, name: `Centre ${id}`, parent, owner: null })
const plan: AllocationPlan = {
  centres: [centre('root', null), centre('a'), centre('b')],
  pools: [{ id: 'shared', name: 'Shared', method: 'direct cost' }],
  rules: [
    { id: 'large', conditions: [{ measure: 'billedCost', atLeast: '30000' }], target: 'shared' },
    { id: 'a', conditions: [{ dimension: 'Tags/team', values: ['a'] }], target: 'a', until: '2026-09-20' },
    {
      id: 'b',
      conditions: [
        { dimension: 'SubAccountName', values: ['live', null] },
        { dimension: 'Tags/team', values: ['b'] },
      ],
      target: 'b',
    },
    { id: 'disks', conditions: [{ dimension: 'ServiceName', pattern: 'd*' }], target: 'shared' },
  ],
  trees: [
    {
      id: 'products',
      name: 'Products',
      centres: [centre('app', null)],
      pools: [],
      rules: [{ id: 'app', conditions: [{ dimension: 'Tags/product', values: ['a', 'b'] }], target: 'app' }],
    },
  ],
}
const withPlans = (cube: Cube, plans: Plans): Cube => {
  cube.setCentres((own, tree, shows) => centreCoding(plans, tree, dimension => own.coding(dimension), shows))
  return cube
}
const always = { start: '2000-01-01', end: '2100-01-01', keep: {}, leaveOut: {}, grain: null, measure: 'billedCost' as const }
const byCentre = (cube: Cube, dimension = 'CostCentre', billingMonth?: string) =>
  answer(cube, { ...always, splitBy: [dimension], billingMonth })
    .rows.map(row => `${row.values[dimension]} ${row.currency} ${row.amount}`)
    .sort()

it('by billing month, CostCentre is the direct cost of the settlement, its pools before division, and what is unallocated', () => {
  fc.assert(
    fc.property(fc.array(plainCharge, { maxLength: 60 }), fc.constantFrom(null, 'products'), (charges, tree) => {
      const cube = withPlans(cubeOf(charges), { newest: plan, closed: {} })
      const own = tree ? plan.trees![0]! : plan
      const settled = toEnd(settleInSlices(cube, own, { month: '2026-09', measure: 'billedCost', reportCurrency: null, rates: [] }))
      const left = new Map<string, bigint>()
      for (const { currency, amount } of settled.unallocated) left.set(currency, (left.get(currency) ?? 0n) + scaled(amount))
      const direct = settled.statements.filter(({ lines }) => lines.some(({ kind }) => kind === 'direct'))
      expect(byCentre(cube, tree ? 'CostCentre/products' : 'CostCentre', '2026-09')).toEqual(
        [
          ...direct.map(s => `${s.centre} ${s.currency} ${s.direct}`),
          ...settled.pools.map(p => `${p.pool} ${p.currency} ${p.amount}`),
          ...[...left].map(([currency, amount]) => `null ${currency} ${scaledText(amount)}`),
        ].sort(),
      )
    }),
    { numRuns: 200 },
  )
})

const charge = (amount: string, more: Partial<PlainCharge> = {}): PlainCharge => ({
  ...{ day: '2026-09-05', hour: 0, currency: 'EUR', amount, values: { ServiceName: 'Servers' }, tags: { team: 'a' } },
  ...more,
})

it('goes by the plan of the billing month, and forgets it when another comes', () => {
  const charges = [
    charge('1'),
    charge('2', { billedIn: '2026-10', day: '2026-10-02' }),
    charge('4', { billedIn: '2026-08', day: '2026-08-02' }),
  ]
  const other = { ...plan, centres: [...plan.centres, centre('z')], rules: [{ ...plan.rules[1]!, until: null, target: 'z' }] }
  const cube = cubeOf(charges)
  expect(byCentre(cube)).toEqual(['null EUR 7'])
  withPlans(cube, { newest: other, closed: { '2026-08': plan } })
  expect(byCentre(cube)).toEqual(['a EUR 4', 'z EUR 3'])
  expect(cube.coding('CostCentre').values).toEqual([null, 'a', 'b', 'root', 'shared', 'z'])
  // a tree that is younger than a closing goes by the newest plan there too
  const { trees: _, ...earlier } = plan
  const tree = { ...plan.trees![0]!, rules: [{ ...plan.trees![0]!.rules[0]!, conditions: other.rules[0]!.conditions }] }
  withPlans(cube, { newest: { ...other, trees: [tree] }, closed: { '2026-08': earlier } })
  expect(byCentre(cube, 'CostCentre/products')).toEqual(['app EUR 7'])
  expect(byCentre(cube)).toEqual(['a EUR 4', 'z EUR 3'])
  withPlans(cube, { newest: plan, closed: {} })
  // the rule ended on 20 September
  expect(byCentre(cube)).toEqual(['a EUR 5', 'null EUR 2'])
  cube.setReference({ ...emptyReference, aliases: { 'Tags/team': { a: 'b' } } })
  expect(byCentre(cube)).toEqual(['b EUR 7'])
  expect(byCentre(cube, 'CostCentreName')).toEqual(['Centre b EUR 7'])
  withPlans(cube, noPlans)
  expect(byCentre(cube)).toEqual(['null EUR 7'])
  expect(byCentre(cube, 'CostCentre/nowhere')).toEqual(['null EUR 7'])
})

it('narrows, combines and compares as any other dimension does', () => {
  const cube = withPlans(
    cubeOf([charge('1'), charge('2', { tags: {} }), charge('40000'), charge('8', { values: { ServiceName: 'Disks' }, tags: {} })]),
    { newest: plan, closed: {} },
  )
  const kept = (keep: Record<string, (string | null)[]>, leaveOut: Record<string, (string | null)[]> = {}) =>
    answer(cube, { ...always, keep, leaveOut, splitBy: ['CostCentre', 'ServiceName'] }).rows.map(row => [
      row.values.CostCentre,
      row.values.ServiceName,
      row.amount,
    ])
  expect(kept({ CostCentre: ['a', 'shared'] })).toEqual([
    ['shared', 'Servers', '40000'],
    ['shared', 'Disks', '8'],
    ['a', 'Servers', '1'],
  ])
  expect(kept({ CostCentre: [null] })).toEqual([[null, 'Servers', '2']])
  expect(kept({ ServiceName: ['Servers'] }, { CostCentre: ['shared'] })).toEqual([
    [null, 'Servers', '2'],
    ['a', 'Servers', '1'],
  ])
  const above = { ...always, splitBy: ['CostCentre'], conditions: [{ dimension: 'CostCentre', keep: true, above: '3' }] }
  expect(answer(cube, above).rows.map(row => row.values.CostCentre)).toEqual(['shared'])
})
