import fc from 'fast-check'
import { expect, it } from 'vitest'
import { datesOf, grainOf, isDateOf, type BusinessMeasure } from '../../../core/unit-cost/business-measure'
import { loadWords, measureMonths, withLoad } from '../../../core/unit-cost/measure-months'
import { isMeasureTable, measureTable, readMeasureTable, wrongValue } from '../../../core/unit-cost/measure-table'

const heads = ['measure', 'unit', 'date', 'cost centre', 'value']

it('what it writes as a table it reads back as the same measures', () => {
  const value = (date: string) =>
    fc.record({
      centre: fc.constantFrom('a', 'constructor', '__proto__'),
      date: fc.constant(date),
      value: fc.constantFrom('0', '12', '0.5'),
    })
  const measure = (name: string, grain: 'day' | 'month', dates: string[]): fc.Arbitrary<BusinessMeasure> =>
    fc
      .uniqueArray(fc.constantFrom(...dates).chain(value), { selector: one => JSON.stringify([one.centre, one.date]), minLength: 1 })
      .chain(values =>
        fc.record({ tree: fc.constantFrom(null, 'products') }).map(({ tree }) => ({ name, unit: name, grain, tree, values })),
      )
  fc.assert(
    fc.property(measure('bookings', 'day', ['2026-10-01', '2026-10-02']), measure('__proto__', 'month', ['2026-10', '2026-11']), (a, b) => {
      expect(readMeasureTable(measureTable([a, b]))).toEqual({ measures: [a, b], wrong: [] })
    }),
  )
})

it('refuses text, negative numbers, dates that are none, and what is said twice, each with its line', () => {
  const rows = [
    ['bookings', 'booking', '2026-10-01', 'ferry', '12'],
    ['bookings', 'booking', '2026-10-01', 'ferry', '12'],
    ['bookings', 'booking', '2026-02-30', 'ferry', '12'],
    ['bookings', 'booking', '2026-10-02', 'ferry', 'many'],
    ['bookings', 'booking', '2026-10-03', 'ferry', '-1'],
    ['bookings', 'booking', '2026-10', 'ferry', '1'],
    ['bookings', 'seat', '2026-10-04', 'ferry', '1'],
    ['bookings', 'booking', '2026-10-05', '', '1'],
    ['bookings', 'booking', '2026-10-05', 'ferry', '1,5'],
    ['bookings', 'booking', '2026-10-06', 'ferry', '1e16'],
    ['', '', '', '', ''],
  ]
  const { measures, wrong } = readMeasureTable({ heads, rows })
  expect(measures).toEqual([])
  expect(wrong.map(({ line, why }) => `${line} ${why}`)).toEqual([
    '3 bookings of ferry for 2026-10-01 is on line 2 already',
    '4 «2026-02-30» is no date: write a day like 2026-10-05, or a month like 2026-10',
    '5 «many» is no number: write what was counted, from 0 on',
    '6 -1 is below zero: write what was counted, from 0 on',
    '7 bookings is told by day above, and by month here',
    '8 bookings is counted in «booking» above, and in «seat» here',
    '9 it has no cost centre',
    '10 «1,5» is no number: write what was counted, from 0 on',
    '11 1e16 is above 1000000000000000: write what was counted, from 0 on',
  ])
  // a value that is wrong says what the measure is all the same
  const first = [['bookings', 'booking', '2026-10-01', 'a', 'many'], ['bookings', 'seat', '2026-10-02', 'a', '1']] // prettier-ignore
  expect(readMeasureTable({ heads, rows: first }).wrong.map(({ line }) => line)).toEqual([2, 3])
  const withTree = {
    heads: ['tree', ...heads],
    rows: [
      ['', 'b', 'b', '2026-10', 'x', '1'],
      ['products', 'b', 'b', '2026-11', 'x', '1'],
    ],
  }
  expect(readMeasureTable(withTree).wrong).toEqual([{ line: 3, why: 'b is of another tree above' }])
  expect([heads, ['value', 'cost centre', 'date', ' unit', 'measure '], ['measure']].map(isMeasureTable)).toEqual([true, true, false])
  expect(['0', '0.000000000000001', '1000000000000000', '0.0000000000000001'].map(wrongValue)).toEqual([
    null,
    null,
    null,
    '0.0000000000000001 has more than 15 decimals',
  ])
})

it('knows days and months, and which of them a month takes to be whole', () => {
  expect(['2026-10-05', '2026-10', '2026-13', '2026', '10-05'].map(grainOf)).toEqual(['day', 'month', null, null, null])
  expect(isDateOf('day', '2026-10')).toBe(false)
  expect(datesOf('month', '2026-02')).toEqual(['2026-02'])
  expect(datesOf('day', '2026-02').length).toBe(28)
  expect(datesOf('day', '2026-11', '2026-11-03')).toEqual(['2026-11-01', '2026-11-02'])
})

it('adds up by month and cost centre, and tells a load from what was there', () => {
  const at = (centre: string, date: string, value: string) => ({ centre, date, value })
  const values = [
    at('a', '2026-10-01', '0.1'),
    at('a', '2026-10-31', '0.2'),
    at('constructor', '2026-11-01', '7'),
    at('b', '2026-10-01', '0'),
  ]
  expect(measureMonths({ name: 'n', unit: 'u', grain: 'day', tree: null, values })).toEqual({
    ...{ name: 'n', unit: 'u', grain: 'day', tree: null },
    months: { '2026-10': { a: { sum: '0.3', told: 2 }, b: { sum: '0', told: 1 } }, '2026-11': { constructor: { sum: '7', told: 1 } } },
  })
  expect(withLoad(values, [at('a', '2026-10-01', '0.10'), at('a', '2026-10-31', '3'), at('a', '2026-11-01', '4')])).toEqual({
    values: [at('a', '2026-10-01', '0.10'), at('a', '2026-10-31', '3'), values[2], values[3], at('a', '2026-11-01', '4')],
    ...{ added: 1, changed: 1 },
  })
  const said = ([added, changed]: number[]) => loadWords({ added: added!, changed: changed! })
  expect([[0, 0], [1, 0], [0, 1], [31, 2]].map(said)).toEqual(['nothing new', '1 value added', '1 value changed', '31 values added, 2 changed']) // prettier-ignore
})
