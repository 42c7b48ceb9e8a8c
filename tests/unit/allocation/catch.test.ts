import fc from 'fast-check'
import { expect, it } from 'vitest'
import { catcherOf } from '../../../core/allocation/catch'
import type { Condition } from '../../../core/allocation/condition'
import { patternTest } from '../../../core/text/pattern'
import { allocationPlanSchema, type Rule } from '../../../core/allocation/plan'
import { scaled } from '../../../core/money/scaled'
import { emptyReference } from '../../../core/spend/reference'
import { cubeOf, plainCharge, valueOf, type PlainCharge } from '../../support/random-charges'
import { randomRule } from '../../support/random-rules'

/** The rule of each charge, by the cube; the charges are of one period. */
function caught(charges: PlainCharge[], rules: Rule[], reference = emptyReference): (string | null)[] {
  const cube = cubeOf(charges)
  cube.setReference(reference)
  const catcher = catcherOf(rules, dimension => cube.coding(dimension))
  return [...cube.segmentsByMonth()].flatMap(of => Array.from(catcher(of), place => (place === 0 ? null : rules[place - 1]!.id)))
}

/** The same in the plainest way. */
function ruleOf(charge: PlainCharge, rules: Rule[]): string | null {
  const holds = (one: Condition) => {
    if ('measure' in one) {
      const amount = scaled(charge.amount)
      return (one.atLeast === undefined || amount >= scaled(one.atLeast)) && (one.below === undefined || amount < scaled(one.below))
    }
    const value = valueOf(charge, one.dimension)
    if ('values' in one) return one.values.includes(value)
    if (value === null) return false
    const [head, ...tail] = one.pattern.toLowerCase().split('*')
    // the only star of these patterns stands at the end
    return tail.length ? value.toLowerCase().startsWith(head!) : value.toLowerCase() === head
  }
  return (
    rules.find(rule => rule.conditions.every(holds) && (!rule.from || charge.day >= rule.from) && (!rule.until || charge.day < rule.until))
      ?.id ?? null
  )
}

it('finds the first rule that holds, whatever the rules, their dates and amounts', () => {
  fc.assert(
    fc.property(fc.array(plainCharge, { maxLength: 40 }), fc.array(randomRule, { maxLength: 70 }), (charges, rules) => {
      expect(caught(charges, rules)).toEqual(charges.map(charge => ruleOf(charge, rules)))
    }),
    { numRuns: 300 },
  )
})

const charge = (more: Partial<PlainCharge>): PlainCharge => ({
  ...{ day: '2026-09-05', hour: 0, currency: 'EUR', amount: '1', values: {}, tags: {} },
  ...more,
})
const rules = (count: number, at: number, conditions: Condition[]): Rule[] =>
  Array.from({ length: count }, (_, i) => ({
    id: `r${i}`,
    conditions: i === at ? conditions : [{ dimension: 'ServiceName', values: ['nobody'] }],
    target: 'x',
  }))

it.each([1, 31, 32, 33, 64, 65, 200])('knows the last of %i rules', count => {
  const cost: Condition[] = [{ measure: 'billedCost', atLeast: '1' }]
  for (const at of [0, count - 1]) {
    expect(caught([charge({})], rules(count, at, [{ dimension: 'SubAccountName', values: [null] }]))).toEqual([`r${at}`])
    expect(caught([charge({}), charge({ amount: '0.999' })], rules(count, at, cost))).toEqual([`r${at}`, null])
  }
  expect(caught([charge({})], rules(count, -1, []))).toEqual([null])
})

it('goes on behind a rule whose amount does not hold', () => {
  const list: Rule[] = [
    { id: 'large', conditions: [{ measure: 'billedCost', atLeast: '100' }], target: 'x' },
    { id: 'credit', conditions: [{ measure: 'billedCost', below: '0' }], target: 'x' },
    { id: 'between', conditions: [{ measure: 'billedCost', atLeast: '0', below: '100' }], target: 'x' },
  ]
  expect(
    caught(
      ['100', '99.999999999999999', '0', '-0.000000000000001', '1e15'].map(amount => charge({ amount })),
      list,
    ),
  ).toEqual(['large', 'between', 'between', 'credit', 'large'])
})

it('begins and ends on its days', () => {
  const list: Rule[] = [
    { id: 'september', conditions: [{ dimension: 'ServiceName', values: [null] }], target: 'x', from: '2026-09-10', until: '2026-09-12' },
  ]
  expect(
    caught(
      ['2026-09-09', '2026-09-10', '2026-09-11', '2026-09-12'].map(day => charge({ day, hour: 23 })),
      list,
    ),
  ).toEqual([null, 'september', 'september', null])
})

it('sees aliases, inherited tags and what a lookup says on the day', () => {
  const reference = {
    ...emptyReference,
    aliases: { 'Tags/team': { bookings: 'booking' } },
    accounts: { a1: { path: [], tags: { team: 'inherited' } } },
    lookups: {
      owners: {
        by: 'Tags/team',
        fields: ['division'],
        entries: [
          { key: 'bookings', from: null, until: '2026-09-10', values: { division: 'passenger' } },
          { key: 'booking', from: '2026-09-10', until: null, values: { division: 'freight' } },
        ],
      },
    },
  }
  const list: Rule[] = [
    { id: 'passenger', conditions: [{ dimension: 'Lookup/owners/division', values: ['passenger'] }], target: 'x' },
    { id: 'freight', conditions: [{ dimension: 'Lookup/owners/division', pattern: 'fr*' }], target: 'x' },
    { id: 'inherited', conditions: [{ dimension: 'Tags/team', values: ['inherited'] }], target: 'x' },
    { id: 'unknown', conditions: [{ dimension: 'Lookup/owners/division', values: [null] }], target: 'x' },
  ]
  const own = (team: string | null, day: string, account: string) =>
    charge({ day, tags: team ? { team } : {}, values: { SubAccountId: account } })
  expect(
    caught(
      [
        own('bookings', '2026-09-09', 'a1'),
        own('booking', '2026-09-09', 'a1'),
        own('booking', '2026-09-10', 'a1'),
        own(null, '2026-09-10', 'a1'),
        own(null, '2026-09-10', 'a2'),
        own('constructor', '2026-09-10', 'a2'),
      ],
      list,
      reference,
    ),
  ).toEqual(['passenger', 'passenger', 'freight', 'inherited', 'unknown', 'unknown'])
})

it('takes patterns by their letters, a star for any text', () => {
  const fits = (pattern: string, value: string | null) => patternTest(pattern)(value?.toLowerCase() ?? null)
  expect([fits('crew-*', 'CREW-9'), fits('crew-*', 'my crew-9'), fits('*', ''), fits('*', null)]).toEqual([true, false, true, false])
  expect([fits('a.b', 'a.b'), fits('a.b', 'axb'), fits('(x)|[y]*', '(X)|[y]\nz'), fits('a*b*c', 'a1b2c'), fits('a*b*c', 'a1c2b')]).toEqual([
    true,
    false,
    true,
    true,
    false,
  ])
  // head and tail must not lie on each other
  expect([fits('ab*ba', 'aba'), fits('ab*ba', 'abba'), fits('**', 'x')]).toEqual([false, true, true])
})

it('refuses conditions that cannot be meant', () => {
  const said = (one: unknown) => {
    const plan = {
      centres: [{ id: 'x', name: 'X', parent: null, owner: null }],
      pools: [],
      rules: [{ id: 'r', conditions: [one], target: 'x' }],
    }
    const read = allocationPlanSchema.safeParse(plan)
    return read.success ? '' : JSON.stringify(read.error.issues)
  }
  expect(said({ dimension: 'CostCentre', values: ['x'] })).toContain('rules look at a column')
  expect(said({ dimension: 'ServiceName', values: [] })).toContain('name at least one value')
  expect(said({ dimension: 'ServiceName', pattern: '' })).toContain('write a pattern')
  expect(said({ measure: 'billedCost' })).toContain('say what the amount is')
  expect(said({ measure: 'billedCost', below: 'ten' })).toContain('write an amount')
  for (const fine of [
    { dimension: 'Lookup/owners/division', values: [null] },
    { dimension: 'Container/2', pattern: 'a*' },
    { measure: 'listCost', atLeast: '-1e3' },
  ])
    expect(said(fine)).toBe('')
})
