// Sources that are not equally far, what is delivered in part, what begins later, and the two times a charge has; figures by hand.
import fc from 'fast-check'
import { expect, it } from 'vitest'
import { answer } from '../../../core/spend/answer'
import { dayGroups } from '../../../core/spend/day-groups'
import { dataDays, sourceDays } from '../../../core/spend/freshness'
import type { Question } from '../../../core/spend/question'
import { spendTable } from '../../../core/spend/table'
import { laggards, reachingCompared, reachingPeriod, type DataDays } from '../../../core/spend/sentence-period'
import { addDays } from '../../../core/time/day'
import type { Cube } from '../../../core/spend/cube'
import { cubeOf, type PlainCharge } from '../../support/random-charges'

type More = Partial<PlainCharge>
const charge = (source: string, day: string, amount: string, more: More = {}): PlainCharge => ({
  day,
  hour: 0,
  currency: 'EUR',
  amount,
  tags: {},
  source,
  billedIn: day.slice(0, 7),
  hours: 24,
  ...more,
  values: { ServiceName: source, ChargeCategory: 'Usage', ...more.values },
})
const every = (source: string, first: string, last: string, amount: string) => {
  const list: PlainCharge[] = []
  for (let day = first; day <= last; day = addDays(day, 1)) list.push(charge(source, day, amount))
  return list
}
const daysOf = (cube: Cube): DataDays => {
  const sources = sourceDays(cube)
  return { ...dataDays(sources)!, sources: Object.fromEntries(sources.map(({ source, lastDay }) => [source, lastDay])) }
}
const total = (cube: Cube, scope: Partial<Question>) =>
  answer(cube, { measure: 'billedCost', splitBy: [], grain: null, start: '', end: '', keep: {}, leaveOut: {}, ...scope }).totals.map(
    ({ amount }) => amount,
  )

// one source delivers a day more: 100 a day, since November 101; the other 1000 a day throughout
const unequal = [
  ...every('constructor', '2026-10-01', '2026-10-31', '100'),
  ...every('constructor', '2026-11-01', '2026-11-24', '101'),
  ...every('slow', '2026-10-01', '2026-11-23', '1000'),
]
const thisMonth = { period: 'this-month', against: 'before' } as const

it('a rolling period ends at each source’s own last day, and the same days are compared', () => {
  const cube = cubeOf(unequal)
  const days = daysOf(cube)
  expect(days).toEqual({ firstDay: '2026-10-01', lastDay: '2026-11-24', sources: { constructor: '2026-11-24', slow: '2026-11-23' } })
  const now = reachingPeriod(thisMonth, days)
  const before = reachingCompared(thisMonth, days)
  expect([now, before]).toEqual([
    { start: '2026-11-01', end: '2026-11-25', ends: { slow: '2026-11-24' } },
    { start: '2026-10-01', end: '2026-10-25', ends: { slow: '2026-10-24' } },
  ])
  // 24 × 101 + 23 × 1000 against 24 × 100 + 23 × 1000: up 0.09 %, where 24 days of both would say down 3.8 %
  expect(total(cube, now)).toEqual(['25424'])
  expect(total(cube, before)).toEqual(['25400'])
  expect(laggards(now, days)).toEqual([{ source: 'slow', lastDay: '2026-11-23', days: 1 }])
  // what the API is asked for by its days stays literal
  expect(total(cube, { start: '2026-10-01', end: '2026-10-25' })).toEqual(['26400'])
})

it('an amount a day is that of each source over its own days', () => {
  const cube = cubeOf(unequal)
  const now = { ...reachingPeriod(thisMonth, daysOf(cube)), keep: {}, leaveOut: {} }
  const groups = dayGroups(now, ['constructor', 'slow'])
  expect(groups.map(({ days }) => days)).toEqual([23, 24])
  const ask = (more: object) => answer(cube, { measure: 'billedCost', splitBy: ['ServiceName'], grain: null, ...now, ...more })
  const byDays = groups.map(({ days, scope }) => ({ days, answer: ask(scope) }))
  const table = spendTable(ask({}), null, {
    measure: 'billedCost',
    splitBy: ['ServiceName'],
    companions: {},
    across: null,
    currency: 'EUR',
    columns: ['perDay'],
    days: 24,
    byDays,
  })
  expect(table.rows.map(row => row.cells)).toEqual([
    ['slow', '23000', '1000'],
    ['constructor', '2424', '101'],
  ])
  expect(table.total.cells).toEqual([null, '25424', '1101'])
})

it('a source that has stopped in the month before has no days in this one, nor in what is compared', () => {
  const days = daysOf(cubeOf([...every('on', '2026-10-01', '2026-11-02', '1'), ...every('off', '2026-10-01', '2026-10-30', '10')]))
  expect(reachingCompared(thisMonth, days)).toEqual({ start: '2026-10-01', end: '2026-10-03', ends: { off: '2026-10-01' } })
})

it('what is held against the year before ends on the same day of each source', () => {
  const days = { firstDay: '2023-01-01', lastDay: '2024-03-02', sources: { a: '2024-03-02', b: '2024-02-29' } }
  expect(reachingCompared({ period: 'this-year', against: 'year' }, days)).toEqual({
    start: '2023-01-01',
    end: '2023-03-03',
    ends: { b: '2023-03-01' },
  })
})

it('freshness goes by the days that usage covers and that were over when it was delivered; what begins later moves nothing', () => {
  const later = [
    charge('cloud', '2026-12-01', '5000', { values: { ChargeCategory: 'Purchase' }, billedIn: '2026-11' }),
    charge('cloud', '2062-01-01', '1', { billedIn: '2026-11' }),
  ]
  const cube = cubeOf(
    [...every('cloud', '2026-11-01', '2026-11-24', '10'), ...later, charge('seats', '2026-11-01', '300', { hours: 24 * 30 })],
    { cloud: '2026-11-24T14:00:00Z', seats: '2026-11-10T09:00:00Z' },
  )
  const list = sourceDays(cube)
  expect(list).toEqual([
    {
      source: 'cloud',
      firstDay: '2026-11-01',
      lastDay: '2026-11-23',
      partialDay: '2026-11-24',
      deliveredAt: '2026-11-24T14:00:00Z',
      missing: [],
      laterFrom: '2026-12-01',
    },
    {
      source: 'seats',
      firstDay: '2026-11-01',
      lastDay: '2026-11-09',
      partialDay: null,
      deliveredAt: '2026-11-10T09:00:00Z',
      missing: [],
      laterFrom: null,
    },
  ])
  expect(dataDays(list)).toEqual({ firstDay: '2026-11-01', lastDay: '2026-11-23' })
  // the months to date: 23 × 10, and the seats
  expect(total(cube, reachingPeriod(thisMonth, daysOf(cube)))).toEqual(['530'])
})

it('where a whole delivery lies after the time it says it was made at, its newest day with usage counts', () => {
  const cube = cubeOf(every('early', '2026-11-10', '2026-11-12', '1'), { early: '2026-11-01T00:00:00Z' })
  expect(sourceDays(cube)[0]).toMatchObject({ lastDay: '2026-11-12', partialDay: null })
})

it('days without charges are runs, however far apart the first and the last lie', () => {
  const cube = cubeOf([charge('gaps', '2001-01-01', '1'), charge('gaps', '2026-11-01', '1'), charge('gaps', '2026-11-04', '1')])
  expect(sourceDays(cube)[0]!.missing).toEqual([
    ['2001-01-02', '2026-10-31'],
    ['2026-11-02', '2026-11-03'],
  ])
})

it('by billing period a correction is of the month it is billed in; the difference is what stands elsewhere', () => {
  const cube = cubeOf([
    ...every('bill', '2026-09-01', '2026-09-30', '10'),
    ...every('bill', '2026-10-01', '2026-10-31', '10'),
    charge('bill', '2026-09-15', '-2428.22', {
      billedIn: '2026-10',
      values: { ChargeCategory: 'Adjustment', ChargeDescription: 'price corrected' },
    }),
  ])
  const october = { start: '2026-10-01', end: '2026-11-01' }
  expect(total(cube, october)).toEqual(['310'])
  expect(total(cube, { ...october, basis: 'billing' })).toEqual(['-2118.22'])
  expect(total(cube, { ...october, basis: 'billing', elsewhere: true })).toEqual(['-2428.22'])
  expect(total(cube, { ...october, elsewhere: true })).toEqual([])
  expect(total(cube, { start: '2026-09-01', end: '2026-10-01', elsewhere: true })).toEqual(['-2428.22'])
  // by day it stands at the start of the billing period it is billed in
  const byDay = answer(cube, { measure: 'billedCost', splitBy: [], grain: 'day', ...october, basis: 'billing', keep: {}, leaveOut: {} })
  expect(byDay.rows.slice(0, 2).map(row => [row.start, row.amount])).toEqual([
    ['2026-10-01', '-2418.22'],
    ['2026-10-02', '10'],
  ])
})

it('over all time both ways come to the same, and within a month they differ by what stands elsewhere', () => {
  const months = ['2026-08', '2026-09', '2026-10']
  const any = fc.record({
    month: fc.constantFrom(...months),
    billedIn: fc.constantFrom(...months),
    day: fc.integer({ min: 1, max: 28 }),
    amount: fc.integer({ min: -500, max: 500 }),
  })
  fc.assert(
    fc.property(fc.array(any, { maxLength: 30 }), fc.constantFrom(...months), (list, month) => {
      const cube = cubeOf(
        list.map(c => charge('s', `${c.month}-${String(c.day).padStart(2, '0')}`, String(c.amount), { billedIn: c.billedIn })),
      )
      const of = (scope: Partial<Question>) => Number(total(cube, scope)[0] ?? '0')
      const all = { start: '2026-01-01', end: '2027-01-01' }
      expect(of({ ...all, basis: 'billing' })).toBe(of(all))
      const within = { start: `${month}-01`, end: addDays(`${month}-28`, 4).slice(0, 8) + '01' }
      const billed = list.filter(c => c.billedIn === month).reduce((n, c) => n + c.amount, 0)
      expect(of({ ...within, basis: 'billing' })).toBe(billed)
      const difference = of({ ...within, basis: 'billing', elsewhere: true }) - of({ ...within, elsewhere: true })
      expect(of({ ...within, basis: 'billing' }) - of(within)).toBe(difference)
    }),
    { numRuns: 100 },
  )
})
