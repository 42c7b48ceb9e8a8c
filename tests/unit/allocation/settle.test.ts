import fc from 'fast-check'
import { expect, it } from 'vitest'
import { allocationPlanSchema, type AllocationPlan } from '../../../core/allocation/plan'
import { settleInSlices, type SettlementQuestion } from '../../../core/allocation/settle'
import { prove } from '../../../core/allocation/statement'
import { branchOf, rollUp, treeOrder } from '../../../core/allocation/tree'
import { scaled, scaledText } from '../../../core/money/scaled'
import { toEnd } from '../../../core/spend/slices'
import { emptyReference, type SpendReference } from '../../../core/spend/reference'
import { allocationPlan } from '../../../demo/organisation'
import { cubeOf, type PlainCharge } from '../../support/random-charges'

const plan: AllocationPlan = {
  centres: [
    { id: 'root', name: 'Root', parent: null, owner: null },
    { id: 'a', name: 'A', parent: 'root', owner: null },
    { id: 'b', name: 'B', parent: 'root', owner: null },
    { id: 'a1', name: 'A1', parent: 'a', owner: null },
  ],
  pools: [{ id: 'pool', name: 'Pool', method: 'direct cost' }],
  rules: [
    { id: 'r1', conditions: [{ dimension: 'Tags/team', values: ['a', 'A'] }], target: 'a1' },
    { id: 'r2', conditions: [{ dimension: 'SubAccountName', values: ['shared'] }], target: 'pool' },
    {
      id: 'r3',
      conditions: [
        { dimension: 'SubAccountName', values: ['live'] },
        { dimension: 'Tags/team', values: [null] },
      ],
      target: 'b',
    },
  ],
}
const MONTH = '2026-09'
/** A charge of the month. */
const cell = (amount: string, values: Record<string, string | null>, currency = 'EUR'): PlainCharge => {
  const { 'Tags/team': team, ...columns } = values
  return { day: '2026-09-05', hour: 0, currency, amount, values: { ServiceName: 's', ...columns }, tags: team ? { team } : {} }
}
const billOf = (cells: PlainCharge[]) =>
  ['EUR', 'USD', 'JPY'].flatMap(currency => {
    const own = cells.filter(c => c.currency === currency)
    return own.length ? [{ currency, amount: own.reduce((n, c) => n + scaled(c.amount), 0n) }] : []
  })
const run = (cells: PlainCharge[], of = plan, more: Partial<SettlementQuestion> = {}, lookups: SpendReference['lookups'] = {}) => {
  const cube = cubeOf(cells)
  cube.setReference({ ...emptyReference, lookups })
  return toEnd(settleInSlices(cube, of, { month: MONTH, measure: 'billedCost', reportCurrency: null, rates: [], ...more }))
}

it('divides the pool in proportion to direct cost, to the cent', () => {
  const { statements, proof, unallocated } = run([
    cell('10', { 'Tags/team': 'a' }),
    cell('20', { SubAccountName: 'live' }),
    cell('100.005', { SubAccountName: 'shared' }),
    cell('7', { SubAccountName: 'else', 'Tags/team': 'q', ResourceId: 'x' }),
  ])
  expect(statements.map(s => [s.centre, s.direct, s.shared, s.total])).toEqual([
    ['b', '20', '66.675', '86.675'],
    ['a1', '10', '33.33', '43.33'],
  ])
  expect(unallocated).toEqual([
    { values: { SubAccountName: 'else', 'Tags/team': 'q' }, currency: 'EUR', amount: '7', resources: 1, count: 1 },
  ])
  expect(proof).toEqual([{ currency: 'EUR', bill: '137.005', direct: '30', shared: '100.005', unallocated: '7', equal: true }])
})

it('puts what nobody owns together where it looks alike, whatever the resource and the segment of charges; currencies apart', () => {
  const left = (amount: string, ResourceId: string | null, currency = 'EUR', team: string | null = 'q') =>
    cell(amount, { SubAccountName: 'else', 'Tags/team': team, ResourceId }, currency)
  const { unallocated } = run([
    ...[left('1', 'x'), left('2', 'y'), left('4', 'x'), left('8', null), left('16', null)],
    ...[left('32', 'x', 'USD'), left('64', 'z', 'EUR', 'other')],
  ])
  expect(unallocated.map(({ values, ...group }) => ({ team: values['Tags/team'], ...group }))).toEqual([
    { team: 'other', currency: 'EUR', amount: '64', resources: 1, count: 1 },
    { team: 'q', currency: 'USD', amount: '32', resources: 1, count: 1 },
    { team: 'q', currency: 'EUR', amount: '31', resources: 2, count: 5 },
  ])
})

it('statements stand by currency, the largest first, equal ones by their centre; services and groups likewise', () => {
  const { statements, unallocated, catches } = run([
    cell('5', { 'Tags/team': 'a', ServiceName: 'small' }),
    cell('9', { 'Tags/team': 'a', ServiceName: 'large' }),
    cell('-4', { 'Tags/team': 'a', ServiceName: 'credit' }),
    cell('10', { SubAccountName: 'live' }),
    cell('1000', { 'Tags/team': 'a' }, 'USD'),
    cell('3000', { SubAccountName: 'live' }, 'USD'),
    cell('2', { SubAccountName: 'x' }),
    cell('11', { SubAccountName: 'y' }),
    cell('-30', { SubAccountName: 'z' }),
  ])
  expect(statements.map(({ centre, currency, total }) => [currency, centre, total])).toEqual([
    ['EUR', 'a1', '10'],
    ['EUR', 'b', '10'],
    ['USD', 'b', '3000'],
    ['USD', 'a1', '1000'],
  ])
  expect(statements[0]!.lines.map(line => [line.kind === 'direct' && line.service, line.amount])).toEqual([
    ['large', '9'],
    ['small', '5'],
    ['credit', '-4'],
  ])
  expect(unallocated.map(({ values, amount, count }) => [values.SubAccountName, amount, count])).toEqual([
    ['y', '11', 1],
    ['x', '2', 1],
    ['z', '-30', 1],
  ])
  expect(catches).toEqual([
    { rule: 'r1', currency: 'EUR', amount: '10', count: 3 },
    { rule: 'r1', currency: 'USD', amount: '1000', count: 1 },
    { rule: 'r3', currency: 'EUR', amount: '10', count: 1 },
    { rule: 'r3', currency: 'USD', amount: '3000', count: 1 },
  ])
})

it('falls back to even shares where direct costs are of both signs, and says so', () => {
  const { statements } = run([
    cell('10', { 'Tags/team': 'a' }),
    cell('-5', { SubAccountName: 'live' }),
    cell('9', { SubAccountName: 'shared' }),
  ])
  expect(statements.map(s => s.shared)).toEqual(['4.5', '4.5'])
  expect(JSON.stringify(statements)).toContain('divided evenly: direct costs are of both signs')
  const nobody = run([cell('0.01', { SubAccountName: 'shared' })])
  expect(nobody.statements.map(s => [s.centre, s.shared])).toEqual([
    ['b', '0.01'],
    ['a1', '0'],
  ])
  expect(JSON.stringify(nobody)).toContain('divided evenly: there are no direct costs')
})

it('says so when the bill is not what was settled', () => {
  const { statements } = run([cell('10', { 'Tags/team': 'a' })])
  const proof = (amount: string) => prove(statements, [], [{ currency: 'EUR', amount }])[0]
  expect(proof('10')).toEqual({ currency: 'EUR', bill: '10', direct: '10', shared: '0', unallocated: '0', equal: true })
  expect(proof('10.000000000000001')?.equal).toBe(false)
})

const cells = fc.array(
  fc
    .tuple(
      fc.record({
        SubAccountName: fc.constantFrom('live', 'shared', 'else', null),
        'Tags/team': fc.constantFrom('a', 'A', 'b', null),
        ServiceName: fc.constantFrom('x', 'y', null),
        ProviderName: fc.constantFrom('p', 'q'),
        ResourceId: fc.constantFrom('1', '2', null),
      }),
      fc.constantFrom('EUR', 'USD', 'JPY'),
      fc.bigInt(-(10n ** 20n), 10n ** 21n),
    )
    .map(([values, currency, amount]) => cell(scaledText(amount), values, currency)),
  { maxLength: 60 },
)

it('conserves money: statements and unallocated are the bill, to the last digit, in every currency', () => {
  fc.assert(
    fc.property(cells, list => {
      const { statements, unallocated, proof, pools, catches } = run(list)
      for (const line of proof) expect(line.equal).toBe(true)
      for (const { currency, amount } of billOf(list)) {
        const landed = [...statements.map(s => ({ currency: s.currency, amount: s.total })), ...unallocated]
          .filter(x => x.currency === currency)
          .reduce((n, x) => n + scaled(x.amount), 0n)
        expect(landed).toBe(amount)
        const caught = [...catches, ...unallocated].filter(c => c.currency === currency).reduce((n, c) => n + scaled(c.amount), 0n)
        expect(caught).toBe(amount)
        const shared = statements.filter(s => s.currency === currency).reduce((n, s) => n + scaled(s.shared), 0n)
        expect(shared).toBe(pools.filter(p => p.currency === currency).reduce((n, p) => n + scaled(p.amount), 0n))
      }
      for (const s of statements) expect(s.lines.reduce((n, l) => n + scaled(l.amount), 0n)).toBe(scaled(s.total))
    }),
  )
})

it('rolls up the tree without losing or doubling anything', () => {
  fc.assert(
    fc.property(cells, list => {
      const { statements } = run(list)
      const root = rollUp(plan.centres, statements, 'EUR').get('root')!
      expect(root.total).toBe(scaledText(statements.filter(s => s.currency === 'EUR').reduce((n, s) => n + scaled(s.total), 0n)))
    }),
  )
  expect(treeOrder(plan.centres).map(c => [c.id, c.depth])).toEqual([
    ['root', 0],
    ['a', 1],
    ['a1', 2],
    ['b', 1],
  ])
  expect(branchOf(plan.centres, 'a1')).toBe('a')
  expect(branchOf(plan.centres, 'root')).toBe('root')
})

it('refuses plans that cannot work', () => {
  const wrong = (change: (p: AllocationPlan) => void) => {
    const p = structuredClone(plan)
    change(p)
    const read = allocationPlanSchema.safeParse(p)
    return read.success ? '' : read.error.issues.map(i => i.message).join('; ')
  }
  expect(allocationPlanSchema.parse(allocationPlan)).toEqual(allocationPlan)
  expect(
    wrong(p => {
      p.centres[0]!.parent = 'a1'
    }),
  ).toContain('its own ancestor')
  expect(
    wrong(p => {
      p.centres[1]!.parent = 'nowhere'
    }),
  ).toContain('no cost centre «nowhere»')
  expect(
    wrong(p => {
      p.rules[0]!.target = 'nowhere'
    }),
  ).toContain('no cost centre or pool')
  expect(
    wrong(p => {
      p.rules[0]!.conditions = []
    }),
  ).toContain('needs a condition')
  expect(
    wrong(p => {
      p.rules[0]!.conditions = [{ dimension: 'BilledCost', values: ['1'] }]
    }),
  ).toContain('rules look at')
  expect(
    wrong(p => {
      p.rules.push(p.rules[0]!)
    }),
  ).toContain('appears twice')
})

it('divides by what the bill measures for each centre, in one unit, of the charges that are meant', () => {
  const measured = (team: string, quantity: string, unit: string | null, service: string): PlainCharge => ({
    ...cell('1', { 'Tags/team': team, SubAccountName: team === 'a' ? 'x' : 'live', ServiceName: service }),
    tags: team === 'a' ? { team } : {},
    quantity,
    values: { PricingUnit: unit, ServiceName: service, SubAccountName: team === 'a' ? 'x' : 'live' },
  })
  const pool = (id: string, more: object) => ({
    ...{ id, name: id, method: 'quantity' as const, measure: 'pricingQuantity' as const },
    unit: 'Hours',
    conditions: [],
    ...more,
  })
  const of = (own: object): AllocationPlan => ({ ...plan, pools: [pool('pool', own)] })
  const cells = [
    measured('a', '3', 'Hours', 'Servers'),
    measured('a', '100', 'GB', 'Servers'),
    measured('a', '5', 'Hours', 'Disks'),
    measured('b', '1', 'Hours', 'Servers'),
    measured('b', '7', null, 'Servers'),
    cell('60', { SubAccountName: 'shared' }),
  ]
  const shared = (own: object) => run(cells, of(own)).statements.map(s => [s.centre, s.shared])
  expect(shared({})).toEqual([
    ['a1', '53.33'], // 8 of 9 hours
    ['b', '6.67'],
  ])
  expect(shared({ unit: 'GB' })).toEqual([
    ['a1', '60'],
    ['b', '0'],
  ])
  expect(shared({ conditions: [{ dimension: 'ServiceName', values: ['Servers'] }] })).toEqual([
    ['a1', '45'], // 3 of 4 hours
    ['b', '15'],
  ])
  expect(JSON.stringify(run(cells, of({ unit: 'Weeks' })))).toContain('divided evenly: nothing is measured in Weeks')
  const twice = {
    ...plan,
    pools: [pool('pool', {}), pool('other', { unit: 'GB' })],
    rules: [...plan.rules, { id: 'o', conditions: [{ dimension: 'SubAccountName', values: ['other'] }], target: 'other' }],
  }
  expect(run([...cells, cell('9', { SubAccountName: 'other' })], twice).statements.map(s => [s.centre, s.shared])).toEqual([
    ['a1', '62.33'],
    ['b', '6.67'],
  ])
})

it('goes on in slices and comes to the same', () => {
  const cube = cubeOf([cell('10', { 'Tags/team': 'a' }), cell('4', { SubAccountName: 'shared' })])
  const question = { month: MONTH, measure: 'billedCost' as const, reportCurrency: null, rates: [] }
  const slices = settleInSlices(cube, plan, question)
  let count = 0
  let step = slices.next()
  for (; !step.done; step = slices.next()) count++
  expect(count).toBeGreaterThanOrEqual(3)
  expect(step.value).toEqual(toEnd(settleInSlices(cube, plan, question)))
})

it('tells where money came from and went, by provider and target, added up over services and rules', () => {
  const from = (provider: string | null, amount: string, more: Record<string, string | null>, currency?: string) =>
    cell(amount, { ProviderName: provider, ...more }, currency)
  const { flows } = run([
    from('P', '1', { 'Tags/team': 'a', ServiceName: 'x' }),
    from('P', '2', { 'Tags/team': 'a', ServiceName: 'y' }),
    from('P', '4', { 'Tags/team': 'a', ServiceName: 'y' }, 'USD'),
    from('Q', '8', { 'Tags/team': 'a' }),
    from(null, '16', { SubAccountName: 'shared', ServiceName: 'x' }),
    from(null, '32', { SubAccountName: 'shared', ServiceName: 'y' }),
    from('P', '64', { SubAccountName: 'nobody', ServiceName: 'x' }),
    from('P', '128', { SubAccountName: 'nobody', ServiceName: 'y' }),
  ])
  expect(flows.map(({ provider, target, currency, amount }) => `${provider} ${target} ${currency} ${amount}`).sort()).toEqual([
    'P a1 EUR 3',
    'P a1 USD 4',
    'P null EUR 192',
    'Q a1 EUR 8',
    'null pool EUR 48',
  ])
})

it('what rules catch stands in the order of the rules, then of the currencies, whichever comes first on the bill', () => {
  const cells = [
    cell('1', { SubAccountName: 'live' }, 'USD'),
    cell('2', { SubAccountName: 'live' }, 'EUR'),
    cell('3', { SubAccountName: 'shared' }, 'USD'),
    cell('4', { 'Tags/team': 'a' }, 'USD'),
    cell('5', { 'Tags/team': 'a' }, 'EUR'),
  ]
  const expected = ['r1 EUR 5', 'r1 USD 4', 'r2 USD 3', 'r3 EUR 2', 'r3 USD 1']
  for (const list of [cells, [...cells].reverse()])
    expect(run(list).catches.map(({ rule, currency, amount }) => `${rule} ${currency} ${amount}`)).toEqual(expected)
})

it('measures what was consumed, on cost centres alone: neither pools nor what nobody owns have a part', () => {
  const consumed = (amount: string, values: Record<string, string | null>, quantity: string): PlainCharge => {
    const own = cell(amount, values)
    return { ...own, consumed: quantity, values: { ...own.values, ConsumedUnit: 'GB', PricingUnit: 'other' } }
  }
  const own: AllocationPlan = {
    ...plan,
    pools: [{ id: 'pool', name: 'Pool', method: 'quantity', measure: 'consumedQuantity', unit: 'GB', conditions: [] }],
  }
  const { statements } = run(
    [
      consumed('1', { 'Tags/team': 'a', ServiceName: 'x' }, '1'),
      consumed('1', { 'Tags/team': 'a', ServiceName: 'y' }, '1'),
      consumed('1', { SubAccountName: 'live' }, '6'),
      consumed('80', { SubAccountName: 'shared' }, '1000'),
      consumed('1', { SubAccountName: 'nobody' }, '1000'),
    ],
    own,
  )
  expect(statements.map(({ centre, shared }) => [centre, shared])).toEqual([
    ['b', '60'],
    ['a1', '20'],
  ])
})
