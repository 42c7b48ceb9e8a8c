// Pools that serve each other, by each method; among whom pools are divided; cost centres that are there for a time.
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { basisOf, type BasisFacts } from '../../../core/allocation/bases'
import { isInMonth, rulesInForce } from '../../../core/allocation/centre-days'
import { allocationPlanSchema, type CostCentre, type Pool, type Rule, type ServingMethod } from '../../../core/allocation/plan'
import { dividedBy, poolTitles } from '../../../core/allocation/pools'
import { shareOut } from '../../../core/allocation/share-out'
import { simultaneous } from '../../../core/allocation/simultaneous'
import { scaled, scaledText, type Scaled } from '../../../core/money/scaled'

const centre = (id: string, more: Partial<CostCentre> = {}): CostCentre => ({
  id,
  name: `Centre ${id}`,
  parent: null,
  owner: null,
  ...more,
})
const money = (list: Record<string, Record<string, string>>) =>
  new Map(Object.entries(list).map(([key, sums]) => [key, new Map(Object.entries(sums).map(([of, text]) => [of, scaled(text)] as const))]))
const facts = (more: Partial<BasisFacts> = {}): BasisFacts => ({
  ...{ centres: ['a', 'b', 'c'].map(id => centre(id)), direct: money({ a: { EUR: '10' }, b: { EUR: '30' } }), services: new Map() },
  ...{ quantities: new Map(), lookups: {}, measures: [], reportCurrency: null, rates: [], day: '2026-10-31', ...more },
})
const settle = (
  pools: Pool[],
  pooled: Record<string, Record<string, string>>,
  serving?: ServingMethod,
  of: BasisFacts = facts(),
): { borne: Record<string, string>; notes: (string | null)[]; undivided: string[]; ofPool: Record<string, string> } => {
  const { shares, undivided } = shareOut({
    ...{ pools, serving, pooled: money(pooled), decimals: () => 2 },
    basis: (pool, currency) => basisOf(pool, currency, of),
  })
  const sums = new Map<string, Scaled>()
  for (const { centre, currency, amount } of shares) {
    const key = currency === 'EUR' ? centre : `${centre} ${currency}`
    sums.set(key, (sums.get(key) ?? 0n) + amount)
  }
  return {
    borne: Object.fromEntries([...sums].map(([key, sum]) => [key, scaledText(sum)])),
    notes: [...new Set(shares.map(({ note }) => note))],
    undivided: undivided.map(({ pool, currency, amount, why }) => `${pool.name} ${scaledText(amount)} ${currency}: ${why}`),
    ofPool: Object.fromEntries(shares.map(({ pool, ofPool }) => [pool.id, scaledText(ofPool)])),
  }
}
const shares = (id: string, given: Record<string, string>): Pool => ({ id, name: id.toUpperCase(), method: 'shares', shares: given })

describe('pools that serve each other', () => {
  // two departments: of the first a fifth serves the second, a tenth of the second the first
  const pools = [shares('it', { hr: '20', a: '50', b: '30' }), shares('hr', { it: '10', a: '40', b: '50' })]
  const put = { it: { EUR: '100000' }, hr: { EUR: '60000' } }

  it('directly: each to the cost centres alone', () => {
    // 100000 as 5 : 3, 60000 as 4 : 5
    expect(settle(pools, put, 'direct')).toMatchObject({
      borne: { a: '89166.67', b: '70833.33' },
      notes: ['other pools bear nothing of it (direct method)'],
      ofPool: { it: '100000', hr: '60000' },
    })
  })

  it('step by step, in their order', () => {
    // 20000 go on to hr, and 80000 as 4 : 5; nothing goes back
    expect(settle(pools, put, 'step-down')).toMatchObject({
      borne: { a: '85555.56', b: '74444.44' },
      notes: [null, 'pools before it bear nothing of it (step-down)'],
      ofPool: { it: '100000', hr: '80000' },
    })
    // the other way round: 6000 go on to it, and 106000 as 5 : 3
    expect(settle(pools.toReversed(), put, 'step-down').borne).toEqual({ a: '90250', b: '69750' })
  })

  it('at once: it = 100000 + hr / 10, hr = 60000 + it / 5', () => {
    // it = 106000 / 0.98 = 108163.265306, hr = 81632.653061; a = it / 2 + 2 hr / 5
    const { borne, ofPool, notes } = settle(pools, put, 'reciprocal')
    expect(borne).toEqual({ a: '86734.69', b: '73265.31' })
    expect(ofPool).toEqual({ it: '108163.265306122448979', hr: '81632.653061224489795' })
    expect(notes).toEqual([null])
    expect(settle(pools.toReversed(), put, 'reciprocal').borne).toEqual(borne)
  })

  it('in each currency by itself, also where one has nothing in it, and with a credit', () => {
    const mixed = { it: { EUR: '-98', USD: '9.8' }, hr: { EUR: '0' } }
    // EUR: it = -98 / 0.98 = -100, hr = -20: a = -58, b = -40
    const { borne } = settle(pools, mixed, 'reciprocal')
    expect(borne).toEqual({ a: '-58', b: '-40', 'a USD': '5.8', 'b USD': '4' })
  })

  it('is one thing by all methods where none serves another back', () => {
    const chain = [shares('one', { two: '1', a: '1' }), shares('two', { b: '1' })]
    const given = { one: { EUR: '8' }, two: { EUR: '1' } }
    for (const serving of [undefined, 'step-down', 'reciprocal'] as const)
      expect(settle(chain, given, serving).borne, serving).toEqual({ a: '4', b: '5' })
  })

  it('cannot be where nothing of a pool ever lands on a cost centre', () => {
    expect(() => simultaneous([1n, 1n], [[0n, 1n, 0n], [1n, 0n, 0n]])).toThrow('no single solution') // prettier-ignore
    const said = (serving: ServingMethod | undefined, ...given: Pool[]) => {
      const read = allocationPlanSchema.safeParse({ centres: ['a', 'b'].map(id => centre(id)), pools: given, rules: [], serving })
      return read.success ? [] : read.error.issues.map(issue => `${issue.path.join('.')}: ${issue.message}`)
    }
    const circle = [shares('p', { q: '1' }), shares('q', { p: '1' }), shares('r', { p: '1', a: '1' })]
    expect(said('reciprocal', ...circle)).toEqual(
      ['P', 'Q'].map(
        (name, i) => `pools.${i}.shares: «${name}» lands on no cost centre by the reciprocal method: it is shared out to pools only`,
      ),
    )
    expect(said(undefined, ...circle)).toHaveLength(2)
    const back = [shares('p', { q: '1', a: '1' }), shares('q', { p: '1' })]
    expect(said('reciprocal', ...back)).toEqual([])
    expect(said('direct', ...back)).toEqual([
      'pools.1.shares: «Q» lands on no cost centre by the direct method: it is shared out to pools only',
    ])
    expect(said('step-down', ...back)).toEqual([
      'pools.1.shares: «Q» lands on no cost centre by the step-down method: it is shared out to pools only',
    ])
    expect(said('step-down', ...back.toReversed())).toEqual([])
    expect(said('reciprocal', { ...shares('p', { a: '1' }), among: { of: 'list', centres: ['gone'] } })).toEqual([
      'pools.0.among: there is no cost centre «gone»',
    ])
  })

  it('loses nothing by any method, whatever serves what, and no cost centre depends on the order of pools that are settled at once', () => {
    const ids = ['p0', 'p1', 'p2', 'p3']
    const amount = fc.bigInt({ min: -(10n ** 21n), max: 10n ** 21n }).map(scaledText)
    const target = fc.constantFrom('a', 'b', 'c', ...ids)
    fc.assert(
      fc.property(
        fc.array(fc.array(fc.tuple(target, fc.integer({ min: 1, max: 9 })), { maxLength: 4 }), { minLength: 4, maxLength: 4 }),
        fc.array(fc.record({ EUR: amount, USD: amount }), { minLength: 4, maxLength: 4 }),
        fc.constantFrom<ServingMethod>('direct', 'step-down', 'reciprocal'),
        (given, amounts, serving) => {
          // of each something lands on a cost centre
          const own = ids.map((id, i) => shares(id, { ...Object.fromEntries(given[i]!.map(([to, n]) => [to, String(n)])), a: '1' }))
          const put = Object.fromEntries(ids.map((id, i) => [id, amounts[i]!]))
          const { borne } = settle(own, put, serving)
          for (const currency of ['EUR', 'USD'] as const) {
            const sum = ['a', 'b', 'c'].map(id => scaled(borne[currency === 'EUR' ? id : `${id} USD`] ?? '0')).reduce((x, y) => x + y, 0n)
            expect(scaledText(sum)).toBe(scaledText(amounts.reduce((n, sums) => n + scaled(sums[currency]), 0n)))
          }
          if (serving !== 'reciprocal') return
          const turned = settle(own.toReversed(), put, serving).borne
          // but for the cent and what is below it
          for (const key of Object.keys(borne))
            expect(Math.abs(Number(scaled(borne[key]!) - scaled(turned[key] ?? '0')))).toBeLessThanOrEqual(Number(scaled('0.08')))
        },
      ),
    )
  })
})

describe('among whom a pool is divided', () => {
  const tree = [
    centre('top'),
    centre('sea', { parent: 'top' }),
    centre('ferry', { parent: 'sea' }),
    centre('old', { parent: 'sea', until: '2026-10-01' }),
    centre('new', { parent: 'sea', from: '2026-11-01' }),
    centre('land', { parent: 'top' }),
  ]
  const of = (more: Partial<BasisFacts> = {}) =>
    facts({ centres: tree, direct: money({ ferry: { EUR: '3' }, land: { EUR: '1' }, top: { USD: '0' } }), ...more })
  const even = (among?: Pool['among']): Pool => ({ id: 'p', name: 'P', method: 'even', among })
  const parts = (pool: Pool, more: Partial<BasisFacts> = {}) => settle([pool], { p: { EUR: '12' } }, undefined, of(more))

  it('evenly goes to everyone who has nobody below them, in the month that is asked', () => {
    expect(parts(even()).borne).toEqual({ ferry: '6', land: '6' })
    expect(parts(even({ of: 'everyone' }), { day: '2026-09-30' }).borne).toEqual({ ferry: '4', old: '4', land: '4' })
    expect(parts(even(), { day: '2026-11-30' }).borne).toEqual({ ferry: '4', new: '4', land: '4' })
  })

  it('goes to a subtree, a list, or those with cost of their own', () => {
    expect(parts(even({ of: 'subtree', centre: 'sea' }), { day: '2026-11-30' }).borne).toEqual({ ferry: '6', new: '6' })
    expect(parts(even({ of: 'list', centres: ['sea', 'land'] })).borne).toEqual({ sea: '6', land: '6' })
    expect(parts(even({ of: 'with cost' })).borne).toEqual({ ferry: '6', land: '6' })
    expect(parts({ id: 'p', name: 'P', method: 'direct cost', among: { of: 'subtree', centre: 'sea' } }).borne).toEqual({ ferry: '12' })
    expect(parts({ id: 'p', name: 'P', method: 'direct cost' }).borne).toEqual({ ferry: '9', land: '3' })
  })

  it('goes by direct cost of chosen services', () => {
    const services = new Map([
      ['ferry', new Map([['Servers', new Map([['EUR', scaled('1')]])]])],
      ['land', new Map([['Servers', new Map([['EUR', scaled('2')]])], ['Disks', new Map([['EUR', scaled('9')]])]])], // prettier-ignore
    ])
    expect(parts({ id: 'p', name: 'P', method: 'direct cost', services: ['Servers'] }, { services }).borne).toEqual({
      ferry: '4',
      land: '8',
    })
    // nobody has any: evenly, and it says so
    const none = parts({ id: 'p', name: 'P', method: 'direct cost', services: ['Lines'] }, { services })
    expect(none).toMatchObject({ borne: { ferry: '6', land: '6' }, notes: ['divided evenly: there are no direct costs'] })
  })

  it('is refused by name where nobody is there, or not who is named, and its money stays in sight', () => {
    expect(parts(even({ of: 'list', centres: ['ferry', 'new'] }))).toEqual({
      ...{ borne: {}, notes: [], ofPool: {} },
      undivided: ['P 12 EUR: «Centre new» is not there in 2026-10: say who bears it instead'],
    })
    expect(parts(shares('p', { old: '1', new: '1' })).undivided).toEqual([
      'P 12 EUR: «Centre old», «Centre new» are not there in 2026-10: say who bears it instead',
    ])
    expect(parts(even({ of: 'subtree', centre: 'new' })).undivided).toEqual([
      'P 12 EUR: nobody is there in 2026-10 at or below «Centre new»',
    ])
    expect(parts(even({ of: 'with cost' }), { direct: new Map() }).undivided).toEqual(['P 12 EUR: nobody has cost of their own in 2026-10'])
    // what others put on it is undivided with it, by every method
    const two = [shares('one', { p: '1', ferry: '1' }), even({ of: 'subtree', centre: 'new' })]
    for (const serving of [undefined, 'step-down', 'reciprocal'] as const)
      expect(settle(two, { one: { EUR: '8' }, p: { EUR: '2' } }, serving, of()), serving).toMatchObject({
        borne: { ferry: '4' },
        undivided: ['P 6 EUR: nobody is there in 2026-10 at or below «Centre new»'],
      })
    expect(settle(two, { one: { EUR: '8' }, p: { EUR: '2' } }, 'direct', of())).toMatchObject({
      borne: { ferry: '8' },
      undivided: [/^P 2 EUR/],
    })
  })
})

it('a pool is divided otherwise from now on; what it is called, who answers and among whom stays', () => {
  const from: Pool = { id: 'p', name: 'P', owner: 'ines', among: { of: 'everyone' }, method: 'direct cost', services: ['Servers'] }
  const base = { id: 'p', name: 'P', owner: 'ines', among: { of: 'everyone' } }
  const lookups = [{ name: 'desks', fields: ['count'] }]
  expect(poolTitles.map(({ method }) => dividedBy(from, method, lookups, ['bookings', 'crossings']))).toEqual([
    { ...base, method: 'direct cost' },
    { ...base, method: 'even' },
    { ...base, method: 'shares', shares: {} },
    { ...base, method: 'quantity', measure: 'consumedQuantity', unit: 'Hours', conditions: [] },
    { ...base, method: 'measure', measure: 'bookings' },
    { ...base, method: 'lookup', lookup: 'desks', field: 'count' },
  ])
  expect(dividedBy({ id: 'p', name: 'P', method: 'even' }, 'lookup', [])).toEqual({
    id: 'p',
    name: 'P',
    method: 'lookup',
    lookup: '',
    field: '',
  })
})

describe('cost centres that are there for a time', () => {
  it('are in a month on any day of it', () => {
    const on = (from: string | null, until: string | null) => isInMonth(centre('x', { from, until }), '2026-10')
    expect([on(null, null), on('2026-10-31', null), on('2026-11-01', null), on(null, '2026-10-02'), on(null, '2026-10-01')]).toEqual([
      ...[true, true, false, true, false],
    ])
  })

  it('bound the rules that put charges on them', () => {
    const rule = (target: string, more: Partial<Rule> = {}): Rule => ({ id: target, conditions: [], target, ...more })
    const centres = [centre('a'), centre('b', { from: '2026-11-01' }), centre('c', { from: '2026-01-01', until: '2026-11-01' })]
    const bounds = (...rules: Rule[]) => rulesInForce({ centres, rules }).map(({ from, until }) => [from ?? null, until ?? null])
    expect(bounds(rule('a', { from: '2026-05-01' }), rule('b'), rule('c'), rule('pool'))).toEqual([
      ['2026-05-01', null],
      ['2026-11-01', null],
      ['2026-01-01', '2026-11-01'],
      [null, null],
    ])
    expect(bounds(rule('c', { from: '2026-02-01', until: '2026-12-01' }), rule('b', { from: '2026-12-01' }))).toEqual([
      ['2026-02-01', '2026-11-01'],
      ['2026-12-01', null],
    ])
    const plain = [rule('a')]
    expect(rulesInForce({ centres: [centre('a')], rules: plain })).toBe(plain)
  })
})
