import fc from 'fast-check'
import { expect, it } from 'vitest'
import { scaled, scaledText } from '../../../core/money/scaled'
import { answer, answersPacked } from '../../../core/spend/answer'
import { unpackAnswer } from '../../../core/spend/packed'
import { emptyReference } from '../../../core/spend/reference'
import type { Question } from '../../../core/spend/question'
import { grains, grainStart } from '../../../core/time/grain'
import { cubeOf, dimensions, plainCharge, valueOf, type PlainCharge, oneCharge as one } from '../../support/random-charges'

const dimension = fc.constantFrom(...dimensions)
const narrowing = fc.dictionary(
  dimension,
  fc.array(fc.constantFrom('Servers', 'Disks', 'live', 'r1', 'a', 'b', 'Usage', 'nowhere', null), { minLength: 1, maxLength: 3 }),
  { maxKeys: 2 },
)
const question: fc.Arbitrary<Question> = fc.record({
  measure: fc.constantFrom('billedCost' as const, 'effectiveCost' as const),
  splitBy: fc.uniqueArray(dimension, { maxLength: 4 }),
  grain: fc.constantFrom(...grains, null),
  start: fc.constantFrom('2026-09-01', '2026-09-15'),
  end: fc.constantFrom('2026-09-16', '2026-10-10', '2026-11-01'),
  keep: narrowing,
  leaveOut: narrowing,
  conditions: fc.array(fc.record({ dimension, keep: fc.boolean(), contains: fc.constantFrom('s', 'R', 'x') }), { maxLength: 1 }),
})

/** The same answer in the plainest way there is. */
function plainly(charges: PlainCharge[], q: Question): Map<string, bigint> {
  const sums = new Map<string, bigint>()
  for (const charge of charges) {
    if (charge.day < q.start || charge.day >= q.end) continue
    if (Object.entries(q.keep).some(([d, values]) => !values.includes(valueOf(charge, d)))) continue
    if (Object.entries(q.leaveOut).some(([d, values]) => values.includes(valueOf(charge, d)))) continue
    const start =
      q.grain === null
        ? null
        : q.grain === 'hour'
          ? `${charge.day}T${String(charge.hour).padStart(2, '0')}`
          : grainStart(charge.day, q.grain)
    if (
      (q.conditions ?? []).some(
        c => 'contains' in c && (valueOf(charge, c.dimension)?.toLowerCase().includes(c.contains.toLowerCase()) ?? false) !== c.keep,
      )
    )
      continue
    const key = JSON.stringify([start, charge.currency, ...q.splitBy.map(d => valueOf(charge, d))])
    sums.set(key, (sums.get(key) ?? 0n) + scaled(charge.amount))
  }
  return sums
}

it('answers as adding up one by one does', () => {
  fc.assert(
    fc.property(fc.array(plainCharge, { maxLength: 120 }), question, (charges, q) => {
      const { rows } = answer(cubeOf(charges), q)
      const found = new Map(
        rows.map(row => [JSON.stringify([row.start, row.currency, ...q.splitBy.map(d => row.values[d])]), scaled(row.amount)]),
      )
      expect(found).toEqual(plainly(charges, q))
    }),
    { numRuns: 150 },
  )
})

it('conserves money: rows and rest add up to the totals, in every currency', () => {
  fc.assert(
    fc.property(fc.array(plainCharge, { maxLength: 120 }), question, fc.integer({ min: 1, max: 6 }), (charges, q, limit) => {
      const cut = answer(cubeOf(charges), { ...q, limit })
      const whole = answer(cubeOf(charges), q)
      expect(cut.totals).toEqual(whole.totals)
      for (const { currency, amount } of cut.totals) {
        const rows = cut.rows.filter(r => r.currency === currency).reduce((n, r) => n + scaled(r.amount), 0n)
        const rest = scaled(cut.rest?.amounts.find(a => a.currency === currency)?.amount ?? '0')
        expect(scaledText(rows + rest)).toBe(amount)
      }
    }),
    { numRuns: 100 },
  )
})

it('rows stand by start, largest first, equal ones by name; a limit keeps the largest over the whole period', () => {
  const few = fc.array(
    plainCharge.map(charge => ({ ...charge, amount: charge.hour % 3 === 0 ? charge.amount : String((charge.hour % 4) - 1) })),
    { maxLength: 150 },
  )
  fc.assert(
    fc.property(few, question, fc.integer({ min: 1, max: 6 }), (charges, q, limit) => {
      const whole = answer(cubeOf(charges), q).rows
      const names = (row: (typeof whole)[number]) => [row.currency, ...q.splitBy.map(d => row.values[d] ?? '\uFFFF')]
      const order = (a: (typeof whole)[number], b: (typeof whole)[number]) =>
        (a.start ?? '') < (b.start ?? '')
          ? -1
          : (a.start ?? '') > (b.start ?? '')
            ? 1
            : scaled(a.amount) !== scaled(b.amount)
              ? scaled(a.amount) > scaled(b.amount)
                ? -1
                : 1
              : names(a) < names(b)
                ? -1
                : 1
      expect(whole).toEqual([...whole].sort(order))
      const sizes = new Map<string, bigint>()
      for (const row of whole) sizes.set(JSON.stringify(names(row)), (sizes.get(JSON.stringify(names(row))) ?? 0n) + scaled(row.amount))
      const size = (name: string) => (sizes.get(name)! < 0n ? -sizes.get(name)! : sizes.get(name)!)
      const ranked = [...sizes.keys()].sort((a, b) =>
        size(a) !== size(b) ? (size(a) > size(b) ? -1 : 1) : (JSON.parse(a) as string[]) < (JSON.parse(b) as string[]) ? -1 : 1,
      )
      // amounts of different currencies are not larger or smaller than each other
      const largest = [...new Set(charges.map(charge => charge.currency))].flatMap(currency =>
        ranked.filter(name => (JSON.parse(name) as string[])[0] === currency).slice(0, limit),
      )
      const cut = answer(cubeOf(charges), { ...q, limit })
      expect(cut.rows).toEqual(whole.filter(row => largest.includes(JSON.stringify(names(row)))))
      expect(cut.rest?.count ?? 0).toBe(sizes.size - largest.length)
    }),
    { numRuns: 200 },
  )
})

const all: Question = {
  measure: 'billedCost',
  splitBy: ['ServiceName'],
  grain: null,
  start: '2026-09-01',
  end: '2026-10-01',
  keep: {},
  leaveOut: {},
}

it('answers several questions as it answers each, also where one is added up from another', () => {
  const part = fc.record({
    splitBy: fc.uniqueArray(dimension, { maxLength: 3 }),
    grain: fc.constantFrom(...grains, null),
    limit: fc.option(fc.integer({ min: 1, max: 5 }), { nil: undefined }),
    measure: fc.constantFrom('billedCost' as const, 'billedCost' as const, 'unitPrice' as const, 'savedAgainstList' as const),
  })
  fc.assert(
    fc.property(
      fc.array(plainCharge, { maxLength: 150 }),
      question,
      fc.array(part, { minLength: 2, maxLength: 6 }),
      (charges, q, parts) => {
        const cube = cubeOf(charges)
        // many charges to few groups, so that adding up from groups is worth it
        for (let i = 0; i < 8; i++) cube.setPeriod({ ...cube.periods.values().next().value!, source: `again ${i}` })
        const questions = parts.map((more): Question => ({ ...q, ...more }))
        expect(answersPacked(cube, questions).map(unpackAnswer)).toEqual(questions.map(one => answer(cube, one)))
      },
    ),
    { numRuns: 150 },
  )
})

it('of many values the largest over the whole period have their course, in each currency', () => {
  // 2 400 resources over ten days in two currencies; a third is credited, every seventh has no name
  const charges = Array.from({ length: 9600 }, (_, i) =>
    one({
      day: `2026-09-${String(1 + ((i * 7) % 10)).padStart(2, '0')}`,
      currency: i % 5 ? 'EUR' : 'USD',
      amount: String((((i * 7919) % 1000) - (i % 3 ? 0 : 700)) / 100),
      values: { ResourceId: i % 7 ? `r${(i * 31) % 2400}` : null, ServiceName: `s${Math.floor(i / 2400)}` },
    }),
  )
  const cube = cubeOf(charges)
  for (const splitBy of [['ResourceId'], ['ServiceName', 'ResourceId']]) {
    for (const measure of ['billedCost', 'savedAgainstList'] as const) {
      const q = { ...all, splitBy, measure, grain: 'day' as const }
      const name = (row: { currency: string; values: Record<string, string | null> }) =>
        JSON.stringify([row.currency, ...splitBy.map(d => row.values[d])])
      const whole = answer(cube, q)
      const largest = new Set(answer(cube, { ...q, grain: null, limit: 5 }).rows.map(name))
      const cut = answer(cube, { ...q, limit: 5 })
      expect(largest.size).toBe(10)
      expect(cut.rows).toEqual(whole.rows.filter(row => largest.has(name(row))))
      expect(cut.totals).toEqual(whole.totals)
      expect(cut.rest).toEqual(answer(cube, { ...q, grain: null, limit: 5 }).rest)
      // a cost that all services are above is meant of all their charges, not of those of the largest resources
      const costs = answer(cube, { ...q, measure: 'billedCost', splitBy: ['ServiceName'], grain: null })
        .rows.filter(row => row.currency === 'EUR')
        .map(row => Math.floor(Number(row.amount)))
      expect(
        answer(cube, { ...q, limit: 5, conditions: [{ dimension: 'ServiceName', keep: true, above: String(Math.min(...costs) - 1) }] }),
      ).toEqual(cut)
    }
  }
})

it('a period begins and ends with its days, to the hour', () => {
  const cube = cubeOf(
    [
      ['2026-09-02', 23, '1'],
      ['2026-09-03', 0, '2'],
      ['2026-09-04', 23, '4'],
      ['2026-09-05', 0, '8'],
    ].map(([day, hour, amount]) => one({ day: String(day), hour: Number(hour), amount: String(amount) })),
  )
  for (const grain of [null, 'hour', 'day', 'month'] as const)
    expect(answer(cube, { ...all, splitBy: [], grain, start: '2026-09-03', end: '2026-09-05' }).totals).toEqual([
      { currency: 'EUR', amount: '6' },
    ])
})

it('equal amounts stand in the order of their names, none last', () => {
  const charges = [null, 'b', 'a'].map(ServiceName => one({ values: { ServiceName } }))
  expect(answer(cubeOf(charges), all).rows.map(r => r.values.ServiceName)).toEqual(['a', 'b', null])
  expect(answer(cubeOf(charges), { ...all, limit: 2 }).rows.map(r => r.values.ServiceName)).toEqual(['a', 'b'])
})

it('amounts that are equal but for what floats make of them stand in the order of their names too, currencies first', () => {
  // 0.3 less 0.2 is less than 0.1 in floats
  const saved = (ServiceName: string, currency: string, list: string, amount: string) =>
    one({ currency, list, amount, values: { ServiceName } })
  const ordered = (...charges: PlainCharge[]) =>
    answer(cubeOf(charges), { ...all, measure: 'savedAgainstList' }).rows.map(r => `${r.values.ServiceName} ${r.currency} ${r.amount}`)
  expect(ordered(saved('a', 'EUR', '0.3', '0.2'), saved('b', 'EUR', '0.1', '0'))).toEqual(['a EUR 0.1', 'b EUR 0.1'])
  expect(ordered(saved('b', 'USD', '0.1', '0'), saved('b', 'EUR', '0.3', '0.2'))).toEqual(['b EUR 0.1', 'b USD 0.1'])
  expect(ordered(saved('a', 'USD', '0.1', '0'), saved('b', 'EUR', '0.3', '0.2'))).toEqual(['b EUR 0.1', 'a USD 0.1'])
  expect(ordered(saved('b', 'EUR', '0.3', '0.2'), saved('a', 'EUR', '0.1', '0'), saved('c', 'EUR', '0.1', '0'))).toEqual([
    ...['a EUR 0.1', 'b EUR 0.1', 'c EUR 0.1'],
  ])
})

it('puts the largest first and counts the rest', () => {
  const charges = ['a', 'b', 'c', 'd'].map((ServiceName, i) => one({ amount: String(10 - i), values: { ServiceName } }))
  const { rows, rest } = answer(cubeOf(charges), { ...all, limit: 2 })
  expect(rows.map(r => r.values.ServiceName)).toEqual(['a', 'b'])
  expect(rest).toEqual({ count: 2, amounts: [{ currency: 'EUR', amount: '15' }] })
  expect(answer(cubeOf(charges), { ...all, limit: 4 }).rest).toBeNull()
})

it('keeps a group whose charges cancel out, and money without a value', () => {
  const { rows } = answer(
    cubeOf([one({ amount: '5', values: { ServiceName: 'x' } }), one({ amount: '-5', values: { ServiceName: 'x' } }), one({ amount: '2' })]),
    all,
  )
  expect(rows).toEqual([
    { values: { ServiceName: null }, start: null, currency: 'EUR', amount: '2' },
    { values: { ServiceName: 'x' }, start: null, currency: 'EUR', amount: '0' },
  ])
})

it('finds the groups by hash where they would be too many to lay out', () => {
  const charges = Array.from({ length: 3000 }, (_, i) =>
    one({
      day: '2026-09-09',
      amount: '1',
      values: { ResourceId: `r${i}`, ResourceName: `n${i}`, SkuId: `s${i}`, InvoiceId: `i${i}`, ChargeDescription: `d${i}` },
    }),
  )
  const asked = answer(cubeOf(charges), { ...all, splitBy: ['ResourceId', 'SkuId', 'InvoiceId', 'ChargeDescription'], grain: 'day' })
  expect(asked.rows).toHaveLength(3000)
  expect(
    asked.rows.every(
      r => r.values.ResourceId!.slice(1) === r.values.SkuId!.slice(1) && r.values.SkuId!.slice(1) === r.values.InvoiceId!.slice(1),
    ),
  ).toBe(true)
  expect(asked.totals).toEqual([{ currency: 'EUR', amount: '3000' }])
  // beyond what a float counts, two groups that differ in the last dimension alone must not run into each other
  const twin = one({ day: '2026-09-09', amount: '5', values: { ...charges.at(-1)!.values, ResourceName: 'twin' } })
  const beyondCounting = answer(cubeOf([...charges, twin]), {
    ...all,
    splitBy: ['ResourceId', 'SkuId', 'InvoiceId', 'ChargeDescription', 'ResourceName'],
    grain: 'day',
  })
  expect(beyondCounting.rows).toHaveLength(3001)
  expect(beyondCounting.rows[0]).toMatchObject({ values: { ResourceName: 'twin', ResourceId: 'r2999' }, amount: '5' })
  // all others cost the same: they stand in the order of their names
  const names = beyondCounting.rows.slice(1).map(r => r.values.ResourceId!)
  expect(names).toEqual([...names].sort())
})

it('asks only the billing month, whenever the charge was', () => {
  const cube = cubeOf([one({})])
  expect(answer(cube, { ...all, billingMonth: '2026-09' }).rows).toHaveLength(1)
  expect(answer(cube, { ...all, billingMonth: '2026-10' }).rows).toHaveLength(0)
})

it('a charge takes its first layer that has a value: own tag, then container, then account', () => {
  const reference = {
    ...emptyReference,
    containerTags: { a: { team: 'of-a' }, 'a/b': { team: 'of-ab' } },
    accounts: { live: { path: ['Top'], tags: { team: 'of-live' } } },
  }
  const charges = [
    ['own', 'a/b'],
    [null, 'a/b/c'],
    [null, 'a'],
    [null, null],
  ].map(([team, path], i) =>
    one({ amount: String(10 ** i), values: { SubAccountId: 'live' }, tags: team ? { team } : {}, own: path ? { x_Container: path } : {} }),
  )
  const cube = cubeOf(charges)
  cube.setReference(reference)
  const by = (dimension: string, more: Partial<Question> = {}) =>
    Object.fromEntries(answer(cube, { ...all, splitBy: [dimension], ...more }).rows.map(r => [r.values[dimension], r.amount]))
  expect(by('Tags/team')).toEqual({ own: '1', 'of-ab': '10', 'of-a': '100', 'of-live': '1000' })
  expect(by('TagsFrom/team')).toEqual({ own: '1', container: '110', account: '1000' })
  expect(by('Tags/team', { keep: { 'Tags/team': ['of-a', 'own'] } })).toEqual({ own: '1', 'of-a': '100' })
  expect(by('Tags/team', { leaveOut: { 'TagsFrom/team': ['container'] } })).toEqual({ own: '1', 'of-live': '1000' })
  cube.setReference({ ...reference, aliases: { 'Tags/team': { 'of-ab': 'of-a' } } })
  expect(by('Tags/team')).toEqual({ own: '1', 'of-a': '110', 'of-live': '1000' })
})

it('keeps units apart, and a price is the whole cost by the whole quantity', () => {
  const hours = (amount: string, quantity: string, unit: string | null) => one({ amount, quantity, values: { PricingUnit: unit } })
  const cube = cubeOf([hours('10', '4', 'Hours'), hours('2', '1', 'Hours'), hours('5', '10', 'GB'), hours('9', '0', null)])
  const asked = (measure: Question['measure']) => answer(cube, { ...all, splitBy: [], measure }).totals
  expect(asked('pricingQuantity')).toEqual([
    { currency: 'GB', amount: '10' },
    { currency: 'Hours', amount: '5' },
    { currency: 'no unit', amount: '0' },
  ])
  expect(asked('unitPrice')).toEqual([
    { currency: 'EUR per GB', amount: '0.5' },
    { currency: 'EUR per Hours', amount: '2.4' },
  ])
})

it('values that cost more than an amount, in any currency', () => {
  const cube = cubeOf(
    [
      ['a', '5'],
      ['a', '6'],
      ['b', '10'],
      ['c', '-20'],
    ].map(([ServiceName, amount]) => one({ amount: amount!, values: { ServiceName: ServiceName! } })),
  )
  const kept = (keep: boolean) =>
    answer(cube, { ...all, conditions: [{ dimension: 'ServiceName', keep, above: '10' }] }).rows.map(r => r.values.ServiceName)
  expect([kept(true), kept(false)]).toEqual([['a'], ['b', 'c']])
  // currencies are never added for it, whatever is measured
  const mixed = cubeOf([
    one({ amount: '6', values: { ServiceName: 'a', PricingUnit: 'GB' } }),
    one({ amount: '6', currency: 'USD', values: { ServiceName: 'a', PricingUnit: 'GB' } }),
  ])
  expect(
    answer(mixed, { ...all, measure: 'pricingQuantity', conditions: [{ dimension: 'ServiceName', keep: true, above: '10' }] }).rows,
  ).toEqual([])
})
