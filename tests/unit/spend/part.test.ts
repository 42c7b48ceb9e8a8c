import fc from 'fast-check'
import { expect, it } from 'vitest'
import { dictionaryNames } from '../../../core/focus/star'
import { answer } from '../../../core/spend/answer'
import { foundDimensions } from '../../../core/spend/dimensions'
import { compare } from '../../../core/spend/compare'
import type { Cube } from '../../../core/spend/cube'
import { findPlaces } from '../../../core/spend/find'
import { sourceDays } from '../../../core/spend/freshness'
import { rowCodes } from '../../../core/spend/layers'
import { partOf } from '../../../core/spend/part'
import { emptyReference } from '../../../core/spend/reference'
import { amountTextOf } from '../../../core/spend/segment'
import { rowsOf } from '../../../core/spend/rows'
import { segmentsReached } from '../../../core/spend/reached'
import { cubeOf, dimensions, plainCharge, type PlainCharge } from '../../support/random-charges'

const ALWAYS = { start: '1970-01-01', end: '2200-01-01', keep: {}, leaveOut: {} }

/** The charges of a cube that have one of some values of a dimension. */
function partWith(cube: Cube, dimension: string, wanted: readonly (string | null)[]) {
  const { layers, values } = cube.coding(dimension)
  return partOf(cube, of => {
    const codeOf = rowCodes(layers, of)
    return Uint32Array.from(Array.from({ length: of.segment.rows }, (_, row) => row).filter(row => wanted.includes(values[codeOf(row)]!)))
  })
}

it('a part answers as the whole does of those charges: sums, counts, order, rest, comparison', () => {
  const dimension = fc.constantFrom(...dimensions)
  fc.assert(
    fc.property(
      fc.array(plainCharge, { minLength: 1, maxLength: 60 }),
      dimension,
      fc.uniqueArray(dimension, { minLength: 1, maxLength: 2 }),
      fc.constantFrom('day' as const, 'month' as const, null),
      fc.constantFrom('a', 'live', 'Disks', 'res-3', null),
      (charges, by, splitBy, grain, value) => {
        const cube = cubeOf(charges)
        const { cube: part } = partWith(cube, by, [value])
        const question = { ...ALWAYS, start: '2026-09-01', end: '2026-11-01', measure: 'billedCost' as const, splitBy, grain, limit: 3 }
        expect(answer(part, question)).toEqual(answer(cube, { ...question, keep: { [by]: [value] } }))
        const change = {
          ...{ measure: 'billedCost' as const, splitBy, keep: {}, leaveOut: {} },
          now: { start: '2026-09-15', end: '2026-11-01' },
          before: { start: '2026-08-01', end: '2026-09-15' },
        }
        expect(compare(part, change)).toEqual(compare(cube, { ...change, keep: { [by]: [value] } }))
      },
    ),
    { numRuns: 150 },
  )
})

const charge = (more: Partial<PlainCharge>): PlainCharge => ({
  ...{ day: '2026-09-10', hour: 0, currency: 'EUR', amount: '1', values: {}, tags: {} },
  ...more,
})
const amounts = (cube: Cube) =>
  [...cube.segments()].flatMap(({ rows, measures, currency }) =>
    Array.from({ length: rows }, (_, row) => `${amountTextOf(measures.billedCost, row)} ${cube.currencies[currency[row]!]}`),
  )

it('a part knows no name, tag, currency, source, container or day of the others', () => {
  const cube = cubeOf([
    charge({
      amount: '1.000000000000001',
      values: { ServiceName: 'Ours', SubAccountId: 'a1', ChargeCategory: 'Usage' },
      tags: { team: 'us' },
    }),
    // more than two limbs hold
    charge({
      amount: '90071992547409931.000000000000007',
      values: { ServiceName: 'Ours' },
      tags: { team: 'us' },
      own: { x_Container: 'in/deep' },
    }),
    charge({
      ...{ amount: '3', currency: 'GBP', day: '2026-10-30', source: 'secret source', tags: { 'secret tag': 'x' }, own: { x_secret: '1' } },
      values: { ServiceName: 'secret service', SubAccountId: 'secret account', SubAccountName: 'secret', ResourceId: 'secret resource' },
    }),
    charge({ amount: '4', currency: 'GBP', values: { ServiceName: 'secret service' }, own: { x_Container: 'secret' } }),
  ])
  cube.setReference({
    ...emptyReference,
    accounts: { a1: { path: ['ours'], tags: { cost: 'us' } }, 'secret account': { path: ['secret', 'path'], tags: { hidden: 'secret' } } },
    containerTags: { in: { season: 'all' }, secret: { concealed: 'secret' } },
  })
  const { cube: part, origins } = partWith(cube, 'ServiceName', ['Ours'])
  expect(amounts(part)).toEqual(['1.000000000000001 EUR', '90071992547409931.000000000000007 EUR'])
  expect(part.currencies).toEqual(['EUR'])
  expect([...part.periods.values()].map(({ source }) => source)).toEqual(['test'])
  expect(sourceDays(part).map(({ source, lastDay }) => [source, lastDay])).toEqual([['test', '2026-09-10']])
  expect(foundDimensions(part)).toEqual([
    'Tags/cost',
    'Tags/season',
    'Tags/team',
    'x_Container',
    'Container/1',
    'Container/2',
    'AccountTree/1',
    'Source',
  ])
  expect(JSON.stringify([dictionaryNames.map(name => part.entries[name]), part.reference])).not.toContain('secret')
  expect(findPlaces(part, 's')).toEqual([expect.objectContaining({ name: 'Ours' })])
  expect(findPlaces(cube, 'secret').map(({ value }) => value)).toContain('secret resource')
  // where the rows stand in what is kept
  expect([...origins.values()].map(({ place, places, rows }) => [place, places, [...rows]])).toEqual([[0, 1, [0, 1]]])
  expect([...rowsOf(part, ALWAYS)(segmentsReached(part, ALWAYS)[0]!)]).toEqual([0, 1])
})

it('a part without a charge is an empty cube', () => {
  const { cube: part } = partWith(cubeOf([charge({ values: { ServiceName: 'one' } })]), 'ServiceName', ['another'])
  expect(part.rows).toBe(0)
  expect(answer(part, { ...ALWAYS, measure: 'billedCost', splitBy: ['ServiceName'], grain: null })).toMatchObject({ totals: [], rows: [] })
})
