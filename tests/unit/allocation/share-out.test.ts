import fc from 'fast-check'
import { expect, it } from 'vitest'
import { basisOf, type BasisFacts } from '../../../core/allocation/bases'
import type { Pool } from '../../../core/allocation/plan'
import { allocationPlanSchema } from '../../../core/allocation/plan'
import { poolLabel, poolMethods } from '../../../core/allocation/pools'
import { shareOut, type SharingOut } from '../../../core/allocation/share-out'
import { scaled, scaledText, type Scaled } from '../../../core/money/scaled'

const centre = (id: string) => ({ id, name: `Centre ${id}`, parent: null, owner: null })
const money = (list: Record<string, Record<string, string>>): Map<string, Map<string, Scaled>> =>
  new Map(
    Object.entries(list).map(([key, sums]) => [key, new Map(Object.entries(sums).map(([currency, text]) => [currency, scaled(text)]))]),
  )
const facts = (more: Partial<BasisFacts> = {}): BasisFacts => ({
  centres: ['a', 'b', 'c'].map(centre),
  direct: money({ b: { EUR: '30' }, a: { EUR: '10', USD: '100' }, c: { USD: '50' } }),
  services: new Map(),
  quantities: new Map(),
  lookups: {},
  measures: [],
  reportCurrency: null,
  rates: [],
  day: '2026-10-31',
  ...more,
})
const direct: Pool = { id: 'p', name: 'P', method: 'direct cost' }
const weights = (pool: Pool, of: BasisFacts, currency = 'EUR') => {
  const { weights, notes, lacking, refused } = basisOf(pool, currency, of)
  expect(refused).toBeNull()
  return { weights: weights.map(({ target, weight }) => `${target} ${scaledText(weight)}`), notes, lacking }
}

it('goes by what is billed in the pool’s currency where the company reports in none, and says who is left out', () => {
  expect(weights(direct, facts())).toEqual({
    weights: ['a 10', 'b 30'],
    notes: ['1 cost centre without cost in EUR left out: no report currency is set'],
    lacking: 'there are no direct costs',
  })
  expect(weights(direct, facts(), 'USD')).toMatchObject({
    weights: ['a 100', 'c 50'],
    notes: [expect.stringMatching(/^1 cost centre without/)],
  })
  expect(weights(direct, facts(), 'CHF')).toMatchObject({ weights: [], notes: [expect.stringMatching(/^3 cost centres without/)] })
  // one currency: nothing to be said
  expect(weights(direct, facts({ direct: money({ a: { EUR: '1' } }) }))).toEqual({
    weights: ['a 1'],
    notes: [],
    lacking: 'there are no direct costs',
  })
  expect(weights(direct, facts({ direct: money({ a: { EUR: '1' } }), reportCurrency: 'CHF' }))).toMatchObject({
    weights: ['a 1'],
    notes: [],
  })
})

it('compares direct costs in the report currency at the rates of the day', () => {
  const rates = [
    { from: 'USD', to: 'EUR', validFrom: '2026-10-01', rate: '0.5' },
    { from: 'USD', to: 'EUR', validFrom: '2026-10-31', rate: '0.9' },
    { from: 'USD', to: 'EUR', validFrom: '2026-11-01', rate: '7' },
  ]
  const of = facts({ reportCurrency: 'EUR', rates })
  // a: 10 + 100 × 0.9; c: 50 × 0.9
  expect(weights(direct, of)).toEqual({ weights: ['a 100', 'b 30', 'c 45'], notes: [], lacking: 'there are no direct costs' })
  // the same whatever the pool's currency
  expect(weights(direct, of, 'USD').weights).toEqual(['a 100', 'b 30', 'c 45'])
  const without = facts({ reportCurrency: 'EUR', rates: [] })
  expect(weights(direct, without)).toMatchObject({ weights: ['b 30'], notes: ['left out for want of a rate to EUR on 2026-10-31: a, c'] })
  const none = facts({ reportCurrency: 'NOK', rates: [] })
  expect(weights(direct, none)).toMatchObject({
    weights: ['a 10', 'b 30'],
    notes: ['no rate to NOK on 2026-10-31: only cost in EUR counts'],
  })
})

it('goes by shares, measured quantities and lookups', () => {
  const shares: Pool = { id: 'p', name: 'P', method: 'shares', shares: { b: '2.5', a: '1', q: '0.25' } }
  expect(basisOf(shares, 'EUR', facts())).toMatchObject({
    weights: [
      { target: 'a', weight: 100n },
      { target: 'b', weight: 250n },
      { target: 'q', weight: 25n },
    ],
    notes: [],
    lacking: 'it has no shares',
  })
  const measured: Pool = { id: 'p', name: 'P', method: 'quantity', measure: 'pricingQuantity', unit: 'Hours', conditions: [] }
  const quantities = new Map([
    [
      'p',
      new Map([
        ['c', scaled('7')],
        ['a', scaled('3')],
      ]),
    ],
  ])
  expect(weights(measured, facts({ quantities }))).toEqual({ weights: ['a 3', 'c 7'], notes: [], lacking: 'nothing is measured in Hours' })
  expect(weights(measured, facts()).weights).toEqual([])
  const lookup: Pool = { id: 'p', name: 'P', method: 'lookup', lookup: 'desks', field: 'desks' }
  const said = (key: string, desks: string, from: string | null = null, until: string | null = null) => ({
    key,
    from,
    until,
    values: { desks },
  })
  const desks = (...entries: ReturnType<typeof said>[]) => facts({ lookups: { desks: { by: 'ServiceName', fields: ['desks'], entries } } })
  expect(
    basisOf(
      lookup,
      'EUR',
      desks(said('b', '1.5'), said('a', '4', null, '2026-10-31'), said('a', '6', '2026-10-31'), said('c', 'many'), said('x', '9')),
    ).weights,
  ).toEqual([
    { target: 'a', weight: 60n },
    { target: 'b', weight: 15n },
  ])
  expect(basisOf(lookup, 'EUR', facts())).toMatchObject({ weights: [], notes: [], lacking: 'desks has no desks on 31 Oct 2026' })
  expect([direct, shares, measured, lookup].map(poolLabel)).toEqual([
    'in proportion to direct cost',
    'by fixed shares',
    'in proportion to Hours on the bill',
    'in proportion to desks in desks',
  ])
  expect(poolMethods.map(({ method }) => method)).toEqual(['direct cost', 'even', 'shares', 'quantity', 'measure', 'lookup'])
})

const out = (pools: Pool[], pooled: Record<string, Record<string, string>>, more: Partial<SharingOut> = {}) =>
  shareOut({
    pools,
    pooled: money(pooled),
    basis: (pool, currency) => basisOf(pool, currency, facts()),
    decimals: () => 2,
    ...more,
  }).shares.map(({ centre, pool, currency, amount, ofPool, note }) => [
    centre,
    pool.id,
    currency,
    scaledText(amount),
    scaledText(ofPool),
    note,
  ])

it('shares pools out in order: what goes to another pool is divided with it, cents are cut last', () => {
  const pools: Pool[] = [
    { id: 'last', name: 'Last', method: 'shares', shares: { a: '1', b: '2' } },
    { id: 'first', name: 'First', method: 'shares', shares: { last: '1', c: '2' } },
  ]
  // a third of 10.01 goes on exactly: 3.336666666666667 (the largest remainder is c's, whose share is left out), and 5 + that is divided
  // 1 : 2; of the cents the last pool's remainder is larger, so 6.67 and 8.34 are borne
  expect(out(pools, { first: { EUR: '10.01' }, last: { EUR: '5' } })).toEqual([
    ['c', 'first', 'EUR', '6.67', '10.01', null],
    ['a', 'last', 'EUR', '2.78', '8.336666666666667', null],
    ['b', 'last', 'EUR', '5.56', '8.336666666666667', null],
  ])
  expect(out(pools, { first: { EUR: '-9' } }).map(row => [row[0], row[3]])).toEqual([
    ['c', '-6'],
    ['a', '-1'],
    ['b', '-2'],
  ])
  expect(out(pools, {})).toEqual([])
  expect(out([direct], { p: { EUR: '0.07' } }, { decimals: () => 0 }).map(row => row[3])).toEqual(['0', '0.07'])
})

it('falls back to even parts, and says why', () => {
  const shared = (basis: SharingOut['basis']) => out([direct], { p: { EUR: '1' } }, { basis }).map(row => [row[0], row[3], row[5]])
  const of =
    (list: Record<string, bigint>, notes: string[] = []) =>
    () => ({
      weights: Object.entries(list).map(([target, weight]) => ({ target, weight })),
      ...{ unit: 'EUR direct', decimals: 0, notes },
      lacking: 'nothing is there',
      everyone: ['a', 'b', 'c'],
      refused: null,
    })
  expect(shared(of({}))).toEqual([
    ['a', '0.34', 'divided evenly: nothing is there'],
    ['b', '0.33', 'divided evenly: nothing is there'],
    ['c', '0.33', 'divided evenly: nothing is there'],
  ])
  expect(shared(of({ b: 0n }))).toEqual([['b', '1', 'divided evenly: nothing is there']])
  expect(shared(of({ a: 3n, b: -1n }, ['c is left out']))).toEqual([
    ['a', '0.5', 'divided evenly: direct costs are of both signs; c is left out'],
    ['b', '0.5', 'divided evenly: direct costs are of both signs; c is left out'],
  ])
  // credits alone are a basis too
  expect(shared(of({ a: -3n, b: -1n }, ['c is left out']))).toEqual([
    ['a', '0.75', 'c is left out'],
    ['b', '0.25', 'c is left out'],
  ])
})

it('loses nothing, whatever the pools', () => {
  const ids = ['p0', 'p1', 'p2', 'p3']
  const amount = fc.bigInt({ min: -(10n ** 21n), max: 10n ** 21n }).map(scaledText)
  fc.assert(
    fc.property(
      fc.array(fc.array(fc.tuple(fc.constantFrom('a', 'b', 'c', ...ids), fc.integer({ min: 1, max: 9 })), { minLength: 1, maxLength: 4 }), {
        minLength: 4,
        maxLength: 4,
      }),
      fc.array(fc.record({ EUR: amount, USD: amount }), { minLength: 4, maxLength: 4 }),
      (given, amounts) => {
        // only to pools with a higher number: no circles
        const pools = ids.map((id, i): Pool => {
          const shares = Object.fromEntries(
            given[i]!.filter(([target]) => !ids.slice(0, i + 1).includes(target)).map(([target, n]) => [target, String(n)]),
          )
          return Object.keys(shares).length ? { id, name: id, method: 'shares', shares } : { id, name: id, method: 'direct cost' }
        })
        const shares = out(pools.toReversed(), Object.fromEntries(ids.map((id, i) => [id, amounts[i]!])))
        for (const currency of ['EUR', 'USD'] as const)
          expect(shares.filter(row => row[2] === currency).reduce((n, row) => n + scaled(row[3] as string), 0n)).toBe(
            amounts.reduce((n, sums) => n + scaled(sums[currency]), 0n),
          )
      },
    ),
  )
})

it('refuses pools that cannot work', () => {
  const said = (pools: unknown[], rules: unknown[] = []) => {
    const read = allocationPlanSchema.safeParse({ centres: ['a', 'b'].map(centre), pools, rules })
    return read.success ? [] : read.error.issues.map(issue => `${issue.path.join('.')}: ${issue.message}`)
  }
  const shares = (id: string, given: Record<string, string>) => ({ id, name: id.toUpperCase(), method: 'shares', shares: given })
  expect(said([shares('p', { a: '1', q: '2' }), shares('q', { b: '1' })])).toEqual([])
  expect(said([shares('p', { p: '1' })])).toEqual([
    'pools.0.shares: «P» would be shared out to itself, over other pools or at once: choose how pools that serve each other are settled',
  ])
  expect(said([shares('p', { q: '1' }), shares('q', { r: '1', b: '1' }), shares('r', { p: '1' })])).toHaveLength(3)
  expect(said([shares('p', { nowhere: '1' })])).toEqual(['pools.0.shares.nowhere: there is no cost centre or pool «nowhere»'])
  expect(said([shares('p', {})])).toEqual(['pools.0.shares: «P» has no shares: say who bears how much of it'])
  expect(said([shares('p', { a: '0' })])).toEqual(['pools.0.shares.a: a share is a number above zero, such as 2.5'])
  expect(said([shares('p', { a: '1e13' })])).toEqual(['pools.0.shares.a: a share is at most 1,000,000,000,000'])
  expect(said([{ id: 'p', name: 'P', method: 'by guess' }])[0]).toContain('pools.0.method')
  expect(said([shares('p', { a: '1' }), shares('p', { a: '1' })])).toEqual(['pools.1.id: «p» appears twice'])
  const rule = (more: object) => ({ id: 'r', conditions: [{ dimension: 'ServiceName', values: ['x'] }], target: 'a', ...more })
  expect(said([], [rule({ from: '2026-10-02', until: '2026-10-02' })])).toEqual([
    'rules.0.until: the rule ends on 2026-10-02, before it begins on 2026-10-02',
  ])
  expect(said([], [rule({ from: 'soon' })])).toEqual(['rules.0.from: write a day like 2026-11-01'])
  const trees = (...list: object[]) => {
    const read = allocationPlanSchema.safeParse({ centres: [centre('a')], pools: [], rules: [], trees: list })
    return read.success ? [] : read.error.issues.map(issue => `${issue.path.join('.')}: ${issue.message}`)
  }
  const tree = { id: 't', name: 'T', centres: [centre('z')], pools: [], rules: [] }
  expect(trees(tree, { ...tree, id: 'u' })).toEqual([])
  expect(trees(tree, tree)).toEqual(['trees.1.id: the tree «t» appears twice'])
  expect(trees({ ...tree, id: 'a/b' })).toEqual(['trees.0.id: no slash in the id of a tree'])
  expect(trees({ ...tree, rules: [rule({})] })).toEqual(['trees.0.rules.0.target: there is no cost centre or pool «a»'])
})
