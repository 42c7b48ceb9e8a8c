import fc from 'fast-check'
import { expect, it } from 'vitest'
import { answer } from '../../../core/spend/answer'
import { foundDimensions, isLookupBase } from '../../../core/spend/dimensions'
import { overlaps, type LookupEntry } from '../../../core/spend/lookup'
import { emptyReference } from '../../../core/spend/reference'
import { cubeOf, plainCharge, valueOf } from '../../support/random-charges'

const day = fc.constantFrom(null, '2026-09-10', '2026-09-20', '2026-10-05')
const key = fc.oneof(
  fc.record({ key: fc.constantFrom('a', 'b', 'live', 'res-1', 'nobody', '*') }),
  fc.record({ key: fc.constantFrom('*', 'L*', '*-1', 'a', 'r*s*', 'nobody*'), match: fc.constant('pattern' as const) }),
)
/** As a pattern is read by a regular expression. */
const fits = (pattern: string, value: string) => new RegExp(`^${pattern.replaceAll('*', '.*')}$`, 'i').test(value)
const dated = fc.record({
  from: day,
  until: day,
  values: fc.dictionary(fc.constantFrom('one', 'two'), fc.constantFrom('x', 'y', 'constructor'), { maxKeys: 2 }),
})
const entry: fc.Arbitrary<LookupEntry> = fc.tuple(key, dated).map(([of, rest]) => ({ ...of, ...rest }))

it('says of each charge what the first entry says that holds on its day', () => {
  fc.assert(
    fc.property(
      fc.array(plainCharge, { maxLength: 40 }),
      fc.array(entry, { maxLength: 12 }),
      fc.constantFrom('Tags/team', 'SubAccountName', 'ResourceId'),
      (charges, entries, by) => {
        const cube = cubeOf(charges)
        cube.setReference({ ...emptyReference, lookups: { table: { by, fields: ['one', 'two'], entries } } })
        const said = (own: (typeof charges)[number], field: string) => {
          const value = valueOf(own, by)
          const holding = entries.filter(
            ({ from, until, values }) => (!from || own.day >= from) && (!until || own.day < until) && Object.hasOwn(values, field),
          )
          const byKey = holding.find(({ key, match }) => !match && key === value)
          const byPattern = holding.find(({ key, match }) => match && value !== null && fits(key, value))
          return (byKey ?? byPattern)?.values[field] ?? null
        }
        const question = {
          measure: 'billedCost' as const,
          grain: 'day' as const,
          start: '2026-01-01',
          end: '2027-01-01',
          keep: {},
          leaveOut: {},
        }
        const splitBy = ['Lookup/table/one', 'Lookup/table/two', by]
        const found = answer(cube, { ...question, splitBy }).rows.map(row =>
          JSON.stringify([row.start, ...splitBy.map(d => row.values[d])]),
        )
        const expected = charges.map(own => JSON.stringify([own.day, said(own, 'one'), said(own, 'two'), valueOf(own, by)]))
        expect([...new Set(found)].sort()).toEqual([...new Set(expected)].sort())
      },
    ),
  )
})

it('is found with its fields, has no values where nobody knows it, and changes with its table', () => {
  const cube = cubeOf([{ day: '2026-09-05', hour: 0, currency: 'EUR', amount: '1', values: { ServiceName: 's' }, tags: {} }])
  const lookups = {
    table: { by: 'ServiceName', fields: ['f/g', 'h'], entries: [{ key: 's', from: null, until: null, values: { 'f/g': '1' } }] },
  }
  const value = (dimension: string) => cube.coding(dimension).values
  expect(value('Lookup/table/f/g')).toEqual([null])
  cube.setReference({ ...emptyReference, lookups })
  expect(foundDimensions(cube)).toEqual(['Lookup/table/f/g', 'Lookup/table/h', 'Source'])
  expect([value('Lookup/table/f/g'), value('Lookup/table/h'), value('Lookup/other/h'), value('Lookup/constructor/h')]).toEqual([
    [null, '1'],
    [null],
    [null],
    [null],
  ])
})

it('finds entries that hold on the same days, and only those', () => {
  const at = (key: string, from: string | null, until: string | null) => ({ key, from, until })
  expect(overlaps([at('x', null, '2026-01-02'), at('x', '2026-01-02', null), at('y', null, null)])).toEqual([])
  expect(overlaps([at('x', null, '2026-01-03'), at('x', '2026-01-02', null)])).toEqual([{ place: 1, other: 0 }])
  // the one that holds long, not the one before
  expect(overlaps([at('x', '2026-01-01', '2026-12-01'), at('x', '2026-02-01', '2026-03-01'), at('x', '2026-05-01', null)])).toEqual([
    { place: 1, other: 0 },
    { place: 2, other: 0 },
  ])
  expect(overlaps([at('x', null, null), at('y', null, null), at('x', null, null)])).toEqual([{ place: 2, other: 0 }])
  // a pattern and a key of the same letters are two
  expect(overlaps([at('x', null, null), { ...at('x', null, null), match: 'pattern' }])).toEqual([])
  expect(overlaps([])).toEqual([])
  expect(
    ['SubAccountName', 'Tags/team', 'Container/1', 'ServiceWhole', 'Lookup/a/b', 'CostCentre', 'CostCentre/t', 'nonsense'].map(
      isLookupBase,
    ),
  ).toEqual([true, true, true, true, false, false, false, false])
})
