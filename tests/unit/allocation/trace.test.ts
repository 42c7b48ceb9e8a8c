// From a line of a statement back to its charges and the rules that put them there.
import fc from 'fast-check'
import { expect, it } from 'vitest'
import { chargesWithin } from '../../../core/allocation/bound'
import { centreCoding } from '../../../core/allocation/centre-coding'
import type { AllocationPlan } from '../../../core/allocation/plan'
import { conditionsWords } from '../../../core/allocation/rule-words'
import { settleInSlices } from '../../../core/allocation/settle'
import { traceOf, type TracedStatement } from '../../../core/allocation/trace'
import { scaled } from '../../../core/money/scaled'
import { answer } from '../../../core/spend/answer'
import type { Cube } from '../../../core/spend/cube'
import { toEnd } from '../../../core/spend/slices'
import { cubeOf, plainCharge, type PlainCharge } from '../../support/random-charges'

const centre = (id: string, parent: string | null = 'root') => ({ id, name: `Centre ${id}`, parent, owner: null })
const plan: AllocationPlan = {
  centres: [centre('root', null), centre('a'), centre('b')],
  pools: [{ id: 'shared', name: 'Shared', method: 'direct cost' }],
  rules: [
    { id: 'large', conditions: [{ measure: 'billedCost', atLeast: '30000' }], target: 'shared' },
    { id: 'a-early', conditions: [{ dimension: 'Tags/team', values: ['a'] }], target: 'a', until: '2026-09-20' },
    { id: 'a-late', conditions: [{ dimension: 'Tags/team', values: ['a'] }], target: 'a' },
    { id: 'b', conditions: [{ dimension: 'SubAccountName', values: ['live', null] }], target: 'b' },
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
const planned = (charges: PlainCharge[]): Cube => {
  const cube = cubeOf(charges)
  cube.setCentres((own, tree, shows) => centreCoding({ newest: plan, closed: {} }, tree, dimension => own.coding(dimension), shows))
  return cube
}
const asked = { month: '2026-09', measure: 'billedCost' as const, reportCurrency: null, rates: [] }
/** What the charges behind a line come to in its currency, by rule. */
function traced(
  cube: Cube,
  line: Parameters<typeof traceOf>[0],
  of: Omit<TracedStatement, 'month' | 'measure'>,
): [string | null, string][] {
  const { currency, period, ...question } = traceOf(line, { ...of, month: '2026-09', measure: 'billedCost' })
  return answer(cube, { ...question, ...period, grain: null, leaveOut: {} })
    .rows.filter(row => row.currency === currency)
    .map(row => [row.values[question.splitBy[0]!]!, row.amount])
}
const sum = (rows: [unknown, string][]) => rows.reduce((total, [, amount]) => total + scaled(amount), 0n)

it('the charges behind a line add up to it; behind a share they are what the rules put into its pool', () => {
  fc.assert(
    fc.property(fc.array(plainCharge, { maxLength: 60 }), fc.constantFrom(null, 'products'), (charges, tree) => {
      const cube = planned(charges)
      const settled = toEnd(settleInSlices(cube, tree ? plan.trees![0]! : plan, asked))
      for (const { centre, currency, lines } of settled.statements)
        for (const line of lines) {
          const rows = traced(cube, line, { centre, currency, tree })
          const whole = line.kind === 'direct' ? line.amount : settled.pools.find(pool => pool.currency === currency)!.amount
          expect(sum(rows)).toBe(scaled(whole))
          const own = (tree ? plan.trees![0]! : plan).rules.map(({ id }) => id)
          for (const [rule] of rows) expect(own).toContain(rule)
        }
    }),
    { numRuns: 60 },
  )
})

const one = (day: string, amount: string, more: Partial<PlainCharge> = {}): PlainCharge => ({
  ...{ day, hour: 0, currency: 'EUR', amount, values: { ServiceName: 'Servers' }, tags: {} },
  ...more,
})

it('names each rule with what it caught, charges of later days of the same billing month too', () => {
  const cube = planned([
    one('2026-09-05', '10', { tags: { team: 'a' } }),
    one('2026-09-25', '4', { tags: { team: 'a' } }),
    one('2026-10-02', '1', { tags: { team: 'a' } }),
    one('2026-10-02', '90', { tags: { team: 'a' }, billedIn: '2026-10' }),
    one('2026-09-05', '7', { tags: { team: 'a' }, values: { ServiceName: null } }),
    one('2026-09-05', '30000', { tags: { team: 'a' } }),
    one('2026-09-06', '5', { values: { ServiceName: 'Disks', SubAccountName: 'rehearsal' } }),
  ])
  const direct = (service: string | null) => traced(cube, { kind: 'direct', service }, { centre: 'a', currency: 'EUR', tree: null })
  expect(direct('Servers')).toEqual([
    ['a-early', '10'],
    ['a-late', '5'],
  ])
  expect(direct(null)).toEqual([['a-early', '7']])
  const share = { kind: 'share' as const, poolId: 'shared' }
  expect(traced(cube, share, { centre: 'a', currency: 'EUR', tree: null })).toEqual([
    ['large', '30000'],
    ['disks', '5'],
  ])
  // in words beside its id
  const words = answer(cube, {
    ...{ measure: 'billedCost', splitBy: ['AllocationRule', 'AllocationRuleWords'], grain: null, keep: {}, leaveOut: {} },
    ...{ start: '2026-09-01', end: '2026-10-01' },
  }).rows.map(({ values }) => `${values.AllocationRule}: ${values.AllocationRuleWords}`)
  expect(words).toEqual([
    'large: billed cost of a line is at least 30000',
    'a-early: team tag is a',
    'disks: service is like d*',
    'a-late: team tag is a',
  ])
})

it('rules in words: both bounds of an amount, several conditions, values, none and what is no dimension', () => {
  const words = (...conditions: Parameters<typeof conditionsWords>[0]['conditions']) => conditionsWords({ conditions })
  expect(words({ measure: 'listCost', atLeast: '1', below: '2' })).toBe('list cost of a line is at least 1 and below 2')
  expect(words({ measure: 'billedCost', below: '-5' })).toBe('billed cost of a line is below -5')
  expect(words({ dimension: 'ServiceName', values: ['a', null] }, { dimension: 'no such', pattern: 'x*' })).toBe(
    'service is a or none and no such is like x*',
  )
  expect(words({ dimension: 'ServiceName', values: [] })).toBe('service is …')
})

it('who sees a part of the company is led to resources, and sees no rules', () => {
  const of = { centre: 'a', currency: 'EUR', month: '2026-12', measure: 'billedCost' as const, tree: null }
  const direct = { kind: 'direct' as const, service: 's', amount: '1' }
  expect(traceOf(direct, of, false)).toMatchObject({ splitBy: ['ResourceId'], period: { start: '2026-12-01', end: '2027-01-01' } })
  const cube = planned([one('2026-09-05', '10', { tags: { team: 'a' } })])
  const part = chargesWithin(cube, plan.centres, { centres: ['a'] })
  expect(part.cube.coding('CostCentre').values).toContain('a')
  for (const dimension of ['AllocationRule', 'AllocationRuleWords', 'AllocationRule/products'])
    expect(part.cube.coding(dimension).values.filter(value => value !== null)).toEqual([])
})
