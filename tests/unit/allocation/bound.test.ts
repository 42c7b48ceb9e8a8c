import fc from 'fast-check'
import { expect, it } from 'vitest'
import { centreCoding } from '../../../core/allocation/centre-coding'
import { chargesWithin, settlementWithin } from '../../../core/allocation/bound'
import { centresWithin, treeWithin } from '../../../core/allocation/tree'
import type { AllocationPlan } from '../../../core/allocation/plan'
import { settleInSlices } from '../../../core/allocation/settle'
import { answer } from '../../../core/spend/answer'
import { toEnd } from '../../../core/spend/slices'
import { cubeOf, plainCharge } from '../../support/random-charges'

const centre = (id: string, parent: string | null) => ({ id, name: `The ${id}`, parent, owner: null })
const plan: AllocationPlan = {
  centres: [centre('all', null), centre('north', 'all'), centre('pier', 'north'), centre('south', 'all'), centre('quay', 'south')],
  pools: [{ id: 'power', name: 'Power', method: 'direct cost' }],
  rules: [
    { id: 'r1', conditions: [{ dimension: 'Tags/team', values: ['a'] }], target: 'pier' },
    { id: 'r2', conditions: [{ dimension: 'Tags/team', values: ['b'] }], target: 'north' },
    { id: 'r3', conditions: [{ dimension: 'ServiceName', values: ['Servers'] }], target: 'quay' },
    { id: 'r4', conditions: [{ dimension: 'RegionId', values: ['r1'] }], target: 'power' },
  ],
}

it('a bound is its cost centres and all below them', () => {
  const within = (...centres: string[]) => [...centresWithin(plan.centres, { centres })]
  expect(within('north')).toEqual(['north', 'pier'])
  expect(within('pier', 'south')).toEqual(['pier', 'south', 'quay'])
  expect(within('all')).toEqual(['all', 'north', 'pier', 'south', 'quay'])
  expect(within()).toEqual([])
  expect(within('gone', 'constructor')).toEqual([])
  expect(treeWithin(plan.centres, { centres: ['north', 'quay'] }).map(({ id, parent }) => [id, parent])).toEqual([
    ['north', null],
    ['pier', 'north'],
    ['quay', null],
  ])
})

it('the charges within a bound are the direct cost of its cost centres, and pools and what is on none are not among them', () => {
  fc.assert(
    fc.property(
      fc.array(plainCharge, { minLength: 1, maxLength: 60 }),
      fc.subarray(['pier', 'north', 'south', 'quay']),
      (charges, centres) => {
        const cube = cubeOf(charges.map(one => ({ ...one, billedIn: '2026-09' })))
        cube.setCentres((own, tree, shows) => centreCoding({ newest: plan, closed: {} }, tree, dimension => own.coding(dimension), shows))
        const { cube: part } = chargesWithin(cube, plan.centres, { centres })
        const question = { start: '1970-01-01', end: '2200-01-01', keep: {}, leaveOut: {}, measure: 'billedCost' as const, grain: null }
        const direct = answer(part, { ...question, splitBy: ['CostCentre'] }).rows.map(row => [
          row.values.CostCentre,
          row.currency,
          row.amount,
        ])
        const settled = toEnd(settleInSlices(cube, plan, { month: '2026-09', measure: 'billedCost', reportCurrency: null, rates: [] }))
        const seen = settlementWithin(settled, plan, { centres, seesPools: false })
        const within = centresWithin(plan.centres, { centres })
        const isSomething = ([, , amount]: (string | null | undefined)[]) => amount !== '0'
        expect(
          seen.statements
            .map(s => [s.centre, s.currency, s.direct])
            .filter(isSomething)
            .sort(),
        ).toEqual(direct.filter(isSomething).sort())
        expect(seen.statements.every(s => within.has(s.centre))).toBe(true)
        // what they bear is what the whole says they bear
        expect(seen.statements.map(s => [s.centre, s.currency, s.shared, s.total])).toEqual(
          settled.statements.filter(s => within.has(s.centre)).map(s => [s.centre, s.currency, s.shared, s.total]),
        )
      },
    ),
    { numRuns: 100 },
  )
})

it('of a share one sees the pool, how it is divided and what is borne; the whole of it with the permission only', () => {
  const charge = { day: '2026-09-10', hour: 0, currency: 'EUR', values: {}, tags: {} }
  const cube = cubeOf([
    { ...charge, amount: '30', tags: { team: 'a' } },
    { ...charge, amount: '60', values: { ServiceName: 'Servers' } },
    { ...charge, amount: '9', values: { RegionId: 'r1', ProviderName: 'P' } },
    { ...charge, amount: '5', values: {} },
  ])
  const settled = toEnd(settleInSlices(cube, plan, { month: '2026-09', measure: 'billedCost', reportCurrency: null, rates: [] }))
  const bound = { centres: ['north'], seesPools: false }
  const seen = settlementWithin(settled, plan, bound)
  const share = { kind: 'share', pool: 'Power', poolId: 'power', label: 'in proportion to direct cost', amount: '3' }
  expect(seen).toEqual({
    statements: [
      {
        ...{ centre: 'pier', currency: 'EUR', direct: '30', shared: '3', total: '33' },
        lines: [
          { kind: 'direct', service: null, amount: '30' },
          { ...share, ofPool: null, base: null, note: null },
        ],
      },
    ],
    catches: [{ rule: 'r1', currency: 'EUR', amount: '30', count: 1 }],
    ...{ pools: [], unallocated: [], proof: [], uplifts: [] },
    flows: [{ provider: null, target: 'pier', currency: 'EUR', amount: '30' }],
  })
  expect(settlementWithin(settled, plan, { ...bound, seesPools: true }).statements[0]!.lines[1]).toEqual({
    ...share,
    ofPool: '9',
    base: { borne: '9', part: '30', of: '90', unit: 'EUR direct' },
    note: null,
  })
  // the settlement itself is left as it was
  expect(settled.statements.flatMap(({ lines }) => lines).some(line => line.kind === 'share' && line.ofPool === '9')).toBe(true)
})
