// Names that objects have by themselves are data wherever a text can stand: as values, tag keys, own columns, spellings, sources.
import fc from 'fast-check'
import { expect, it } from 'vitest'
import { scaled, scaledText } from '../../../core/money/scaled'
import { answer } from '../../../core/spend/answer'
import { foundDimensions } from '../../../core/spend/dimensions'
import { spendTable } from '../../../core/spend/table'
import { readSentence, writeSentence } from '../../../core/spend/sentence-address'
import { cubeOf, valueOf, type PlainCharge } from '../../support/random-charges'

export const hostile = [
  'constructor',
  'toString',
  '__proto__',
  'hasOwnProperty',
  'valueOf',
  'prototype',
  '__defineGetter__',
  'length',
  'null',
  'undefined',
  'NaN',
  '0',
]
const name = fc.constantFrom(...hostile)
const maybe = fc.option(name, { nil: null })
const columns = [
  'ServiceName',
  'SubAccountName',
  'SubAccountId',
  'ResourceId',
  'SkuId',
  'ChargeDescription',
  'PricingUnit',
  'ProviderName',
] as const
const dictionary = (list: string[][]) => Object.fromEntries(list) as Record<string, string>
const charge: fc.Arbitrary<PlainCharge> = fc.record({
  day: fc.constantFrom('2026-09-01', '2026-10-01'),
  hour: fc.constant(0),
  currency: fc.constant('EUR'),
  amount: fc.integer({ min: -1000, max: 1000 }).map(String),
  values: fc.record(Object.fromEntries(columns.map(column => [column, maybe]))) as fc.Arbitrary<Record<string, string | null>>,
  tags: fc.array(fc.tuple(name, name), { maxLength: 3 }).map(dictionary),
  own: fc.array(fc.tuple(name, name), { maxLength: 2 }).map(list => dictionary(list.map(([key, value]) => [`x_${key}`, value!]))),
  source: name,
})
const all = { start: '2026-01-01', end: '2027-01-01', keep: {}, leaveOut: {} }
const own = (one: PlainCharge, dimension: string): string | null => {
  const record = dimension.startsWith('Tags/') ? one.tags : dimension.startsWith('x_') ? one.own! : null
  const key = dimension.replace(/^Tags\//, '')
  return record ? (Object.hasOwn(record, key) ? record[key]! : null) : valueOf(one, dimension)
}

it('sums by any dimension, kept or left out, are those of the charges', () => {
  const dimensions = [...columns, ...hostile.map(key => `Tags/${key}`), ...hostile.map(key => `x_${key}`)]
  fc.assert(
    fc.property(fc.array(charge, { maxLength: 30 }), fc.constantFrom(...dimensions), maybe, (charges, dimension, value) => {
      const cube = cubeOf(charges)
      const sums = new Map<string | null, bigint>()
      for (const one of charges) sums.set(own(one, dimension), (sums.get(own(one, dimension)) ?? 0n) + scaled(one.amount))
      const question = { measure: 'billedCost' as const, splitBy: [dimension], grain: null, ...all }
      const found = answer(cube, question)
      expect(new Map(found.rows.map(row => [row.values[dimension]!, row.amount]))).toEqual(
        new Map([...sums].map(([key, sum]) => [key, scaledText(sum)])),
      )
      const table = spendTable(found, null, {
        measure: 'billedCost',
        splitBy: [dimension],
        companions: {},
        across: null,
        currency: 'EUR',
        columns: [],
        days: 1,
      })
      expect(table.rows).toHaveLength(sums.size)
      const kept = answer(cube, { ...question, splitBy: [], keep: { [dimension]: [value] } }).totals[0]?.amount ?? '0'
      expect(kept).toBe(scaledText(sums.get(value) ?? 0n))
      const sentence = { ...readSentence({}), splitBy: [dimension], keep: { [dimension]: [value] }, steps: [{ dimension, value }] }
      expect(readSentence(writeSentence(sentence))).toEqual(sentence)
      const keys = new Set(charges.flatMap(({ tags }) => Object.keys(tags)))
      expect(foundDimensions(cube).filter(d => d.startsWith('Tags/'))).toEqual([...keys].sort().map(key => `Tags/${key}`))
    }),
    { numRuns: 300 },
  )
})

it('aliases, inherited tags, trees and what SKUs are charged for go by the names that are there, and no others', () => {
  const cube = cubeOf([
    {
      day: '2026-09-01',
      hour: 0,
      currency: 'EUR',
      amount: '1',
      tags: {},
      values: { SubAccountId: 'constructor', SkuId: 'toString', ServiceName: 'valueOf' },
    },
    {
      day: '2026-09-01',
      hour: 0,
      currency: 'EUR',
      amount: '10',
      tags: {},
      values: { SubAccountId: '__proto__', SkuId: '__proto__', ServiceName: '__proto__' },
    },
  ])
  const named = (key: string, value: unknown) => JSON.parse(`{${JSON.stringify(key)}: ${JSON.stringify(value)}}`) as never
  const by = (dimension: string) =>
    Object.entries(
      Object.fromEntries(
        answer(cube, { measure: 'billedCost', splitBy: [dimension], grain: null, ...all }).rows.map(row => [
          row.amount,
          row.values[dimension]!,
        ]),
      ),
    )
  const nothing = { aliases: {}, accounts: {}, containerTags: {}, charged: {}, lookups: {} }
  cube.setReference(nothing)
  for (const dimension of ['AccountTree/1', 'ChargedFor', 'Tags/constructor']) expect(by(dimension)).toEqual([['11', null]])
  cube.setReference({
    aliases: { ServiceName: named('__proto__', 'same') },
    accounts: named('__proto__', { path: ['constructor'], tags: named('__proto__', 'inherited') }),
    containerTags: {},
    charged: named('__proto__', 'use'),
    lookups: {},
  })
  expect(by('ServiceName')).toEqual([
    ['1', 'valueOf'],
    ['10', 'same'],
  ])
  expect(by('AccountTree/1')).toEqual([
    ['1', null],
    ['10', 'constructor'],
  ])
  expect(by('Tags/__proto__')).toEqual([
    ['1', null],
    ['10', 'inherited'],
  ])
  expect(by('ChargedFor')).toEqual([
    ['1', null],
    ['10', 'use'],
  ])
})
