import fc from 'fast-check'
import { expect, it } from 'vitest'
import { Intake } from '../../../core/focus/intake/intake'
import type { FileProblem } from '../../../core/focus/problem'
import { dictionaryNames } from '../../../core/focus/star'
import { fileColumns, type FileCharge } from '../../../demo/focus-file'
import { decodeUtf8 } from '../../../server/imports/readers/csv'
import { charge } from '../../support/charges'
import { take } from '../../support/intake'

const header = [...fileColumns]
const cells = (more: FileCharge) => header.map(column => charge(more)[column] ?? '')
const amount = fc.oneof(
  fc
    .tuple(fc.integer({ min: -5_000_000, max: 5_000_000 }), fc.nat(15), fc.integer({ min: 0, max: 999_999_999 }))
    .map(([whole, digits, fraction]) => (digits ? `${whole}.${String(fraction).padStart(9, '0').slice(0, digits)}` : String(whole))),
  fc.constantFrom(
    '0',
    '-0',
    '0.000000000000001',
    '-0.5',
    '.5',
    '5.',
    '+3',
    '1e3',
    '1.5E-7',
    '4503599627.370496',
    '4503599628',
    '99999999999',
    '00012.50',
    '1,5',
    'abc',
    '',
    '--1',
    '1.2.3',
    '0.1234567890123456',
    ' 1',
  ),
)
const row: fc.Arbitrary<FileCharge> = fc
  .record({
    BilledCost: amount,
    PricingQuantity: amount,
    ServiceName: fc.constantFrom('Servers', 'Disks', '', 'Überfahrt ⛴'),
    ResourceId: fc.constantFrom('a', 'b', 'c', ''),
    ChargeCategory: fc.constantFrom('Usage', 'Usage', 'Credit', 'Fee'),
    Tags: fc.constantFrom('', '{"a":"1","b":2}', '{"b":2,"a":"1"}', '{"a":', '[1]'),
    x_ProjectCode: fc.constantFrom('', 'P1', 'P2'),
    ChargePeriodStart: fc.constantFrom('2026-10-05T00:00:00Z', '2026-10-05T13:00:00Z', 'yesterday'),
    BillingCurrency: fc.constantFrom('EUR', 'USD', 'EURO'),
  })
  .map(values => ({ ...values, ListCost: '0', ContractedCost: '0', EffectiveCost: '0' }))

it('takes the same from bytes and from a file as from texts: charges, entries, problems', () => {
  // now and then a row with a cell too many or too few
  const line = fc
    .tuple(row, fc.constantFrom(0, 0, 0, 0, -1, 1))
    .map(([values, more]) => (more < 0 ? cells(values).slice(1) : [...cells(values), ...(more > 0 ? ['more'] : [])]))
  fc.assert(
    fc.property(fc.array(line, { maxLength: 30 }), rows => {
      const [text, ...others] = (['text', 'bytes', 'file'] as const).map(way => take(header, rows, way))
      for (const other of others) {
        expect(other.charges).toEqual(text!.charges)
        expect(other.problems).toEqual(text!.problems)
        expect(other.intake.conformance()).toEqual(text!.intake.conformance())
        expect([...other.intake.roundings].map(([column, { count, difference }]) => [column, count, difference.toFixed()])).toEqual(
          [...text!.intake.roundings].map(([column, { count, difference }]) => [column, count, difference.toFixed()]),
        )
      }
    }),
    { numRuns: 80 },
  )
})

it('whether a row is taken does not depend on the rows before it', () => {
  fc.assert(
    fc.property(fc.array(row, { minLength: 1, maxLength: 20 }), rows => {
      const alone = rows.map(one => take(header, [cells(one)]))
      const together = take(header, rows.map(cells))
      expect(together.charges.map(({ keys: _, ...rest }) => rest)).toEqual(
        alone.flatMap(({ charges }) => charges.map(({ keys: _, ...rest }) => rest)),
      )
      expect(together.problems.map(({ row: _, ...rest }) => rest)).toEqual(
        alone.flatMap(({ problems }) => problems.map(({ row: _, ...rest }) => rest)),
      )
      expect(together.intake.conformance().rules.map(rule => [rule.id, rule.rows])).toEqual(
        alone[0]!.intake
          .conformance()
          .rules.map((rule, i) => [rule.id, alone.reduce((n, { intake }) => n + intake.conformance().rules[i]!.rows, 0)]),
      )
    }),
    { numRuns: 100 },
  )
})

it('asks a rule again whenever what it speaks of changes', () => {
  // rows that can be taken, few values: the same row comes again with one thing changed
  const value = (...texts: string[]) => fc.constantFrom(...texts)
  const good = fc.record({
    PricingQuantity: value('1', '2', ''),
    ConsumedQuantity: value('1', ''),
    PricingUnit: value('Hours', ''),
    ListCost: value('1', '2'),
    ContractedCost: value('1', '3'),
    EffectiveCost: value('0', '1'),
    BilledCost: value('0', '1'),
    ListUnitPrice: value('1', ''),
    ContractedUnitPrice: value('1', ''),
    ChargeCategory: value('Usage', 'Usage', 'Usage', 'Purchase'),
    CommitmentDiscountStatus: value('', '', 'Used'),
    CommitmentDiscountId: value('', 'c'),
    RegionId: value('', 'r'),
    RegionName: value('', 'R'),
    SkuId: value('', 's', 't'),
    SkuPriceId: value('', 'p'),
    ConsumedUnit: value('', 'Hours'),
    ChargeClass: value('', '', 'Correction'),
    PricingCategory: value('', 'Standard', 'Committed'),
    ResourceName: value('', 'n'),
    ResourceId: value('', 'i', 'j'),
    ChargeFrequency: value('Usage-Based', 'Recurring'),
    ChargePeriodStart: value('2026-10-05T00:00:00Z', '2026-09-05T00:00:00Z'),
  })
  fc.assert(
    fc.property(fc.array(good, { minLength: 2, maxLength: 25 }), rows => {
      const alone = rows.map(one => take(header, [cells(one)]))
      for (const way of ['text', 'file'] as const) {
        const together = take(header, rows.map(cells), way)
        expect(together.charges.length).toBe(alone.reduce((n, { charges }) => n + charges.length, 0))
        expect(together.intake.conformance().rules.map(rule => [rule.id, rule.rows])).toEqual(
          alone[0]!.intake
            .conformance()
            .rules.map((rule, i) => [rule.id, alone.reduce((n, { intake }) => n + intake.conformance().rules[i]!.rows, 0)]),
        )
      }
    }),
    { numRuns: 80 },
  )
})

it('equal combinations of values are one entry, in every dictionary', () => {
  const { charges } = take(
    header,
    [cells({ Tags: '{"a":1,"b":2}' }), cells({ Tags: '{"b":2,"a":1}' }), cells({ ResourceId: 'other' }), cells({ Tags: '{"a":1,"b":2}' })],
    'bytes',
  )
  const at = (name: (typeof dictionaryNames)[number]) => charges.map(c => c.keys[dictionaryNames.indexOf(name)])
  expect(at('resource')).toEqual([0, 0, 1, 0])
  expect(at('sku')).toEqual([0, 0, 0, 0])
  expect(charges[0]!.entries.tagSet).toEqual(charges[1]!.entries.tagSet)
})

it('names bytes that are not UTF-8, and a NUL byte, where they stand', () => {
  const problems: FileProblem[] = []
  const intake = new Intake(header, { decode: decodeUtf8, note: problem => problems.push(problem), entryId: () => 0 })
  for (const wrong of [Buffer.from([0xc3, 0x28]), Buffer.from('a\0b')]) {
    cells({}).forEach((cell, i) => intake.setBytes(i, Buffer.from(cell), 0, Buffer.from(cell).length))
    intake.setBytes(header.indexOf('ServiceName'), wrong, 0, wrong.length)
    expect(intake.endRow('file')).toBeNull()
  }
  expect(problems.map(p => [p.row, p.column, p.reason])).toEqual([
    [1, 'ServiceName', 'the bytes are not UTF-8'],
    [2, 'ServiceName', 'the text holds a NUL byte'],
  ])
})

it('tells what is missing in a row after a first one that has too few cells', () => {
  for (const way of ['text', 'bytes', 'file'] as const) {
    const { problems } = take(header, [cells({}).slice(1), cells({ ServiceName: '' })], way)
    expect(problems.map(p => [p.row, p.column])).toEqual([
      [1, null],
      [2, 'ServiceName'],
    ])
  }
})
