import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { applyMapping } from '../../../core/focus/mapping/apply-mapping'
import { mappingSchema } from '../../../core/focus/mapping/mapping'
import { endAfter, readDate, readNumber } from '../../../core/focus/mapping/read-text'
import { likelyDelimiter, suggestMapping } from '../../../core/focus/mapping/suggest-mapping'
import { take } from '../../support/intake'

describe('numbers as files write them', () => {
  it.each([
    ['1.234,50', ',', '.', '1234.50'],
    ['1,234.50', '.', ',', '1234.50'],
    ['1 234,5', ',', ' ', '1234.5'],
    ['(12.30)', '.', '', '-12.30'],
    ['12.30-', '.', '', '-12.30'],
    ['−4', '.', '', '-4'],
    ['EUR 12.30', '.', '', '12.30'],
    ['12,30 €', ',', '', '12.30'],
    ["1'234.5", '.', "'", '1234.5'],
    ['', '.', '', ''],
    ['1e3', '.', '', '1e3'],
  ] as const)('%s', (text, decimal, thousands, plain) => {
    expect(readNumber(text, decimal, thousands)).toBe(plain)
  })
  it.each([
    ['1,50', '.', ','],
    ['1.50', ',', ''],
    ['12,34,56', '.', ','],
    ['abc', '.', ''],
    ['1.2.3', '.', ''],
    ['1..2', '.', ''],
  ] as const)('refuses %s', (text, decimal, thousands) => {
    expect(readNumber(text, decimal, thousands)).toBeNull()
  })
  it('reads back what is written with any separators', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -99_999_999, max: 99_999_999 }),
        fc.constantFrom(['.', ','], [',', '.'], [',', ' '], ['.', "'"]),
        (cents, [decimal, thousands]) => {
          const [whole, fraction] = (Math.abs(cents) / 100).toFixed(2).split('.') as [string, string]
          const written = `${cents < 0 ? '-' : ''}${whole.replace(/\B(?=(\d{3})+$)/g, thousands!)}${decimal}${fraction}`
          expect(Number(readNumber(written, decimal as '.', thousands as ','))).toBe(cents / 100)
        },
      ),
    )
  })
})

describe('dates as files write them', () => {
  it.each([
    ['03.10.2026', 'DD.MM.YYYY', '2026-10-03T00:00:00Z'],
    ['10/03/2026', 'MM/DD/YYYY', '2026-10-03T00:00:00Z'],
    ['3/10/2026 14:05', 'DD/MM/YYYY', '2026-10-03T14:05:00Z'],
    ['20261003', 'YYYYMMDD', '2026-10-03T00:00:00Z'],
    ['2026-10', 'YYYY-MM', '2026-10-01T00:00:00Z'],
    ['1790985600', 'seconds', '2026-10-03T00:00:00Z'],
    ['2026-10-03T04:00:00Z', 'ISO', '2026-10-03T04:00:00Z'],
  ] as const)('%s', (text, format, time) => {
    expect(readDate(text, format)).toBe(time)
  })
  it.each([
    ['31.02.2026', 'DD.MM.YYYY'],
    ['13/13/2026', 'MM/DD/YYYY'],
    ['tomorrow', 'ISO'],
    ['2026-10-03 25:00', 'ISO'],
  ] as const)('refuses %s', (text, format) => {
    expect(readDate(text, format)).toBeNull()
  })
  it('a charge lasts an hour, a day or a month', () => {
    expect([
      endAfter('2026-10-31T23:00:00Z', 'hour'),
      endAfter('2026-10-31T00:00:00Z', 'day'),
      endAfter('2026-02-10T00:00:00Z', 'month'),
    ]).toEqual(['2026-11-01T00:00:00Z', '2026-11-01T00:00:00Z', '2026-03-01T00:00:00Z'])
  })
})

const mapping = (more: object) =>
  mappingSchema.parse({
    texts: { BillingCurrency: { constant: 'EUR' } },
    numbers: { BilledCost: { column: 'amount' } },
    times: { ChargePeriodStart: { column: 'date' } },
    ...more,
  })

it('what a mapping makes is FOCUS, whatever is left unsaid', () => {
  const file = applyMapping(mapping({}), ['date', 'amount'], 'Vendor')
  if ('problems' in file) throw new Error('the mapping should do')
  const row = file.row(['2026-10-03', '12.5'], 1)
  if (row === 'left out' || 'problems' in row) throw new Error('the row should do')
  const {
    charges: [taken],
    problems,
    intake,
  } = take(file.header, [row.texts])
  expect(problems).toEqual([])
  expect(taken!.amounts).toMatchObject({ BilledCost: 12_500_000_000_000_000n, EffectiveCost: 12_500_000_000_000_000n })
  expect(taken!.entries.billingAccount).toEqual(['Vendor', 'Vendor', null, 'Vendor', 'Vendor', 'Vendor'])
  expect(intake.conformance().rules.filter(rule => rule.rows && rule.severity === 'error')).toEqual([])
})

it('hours times a rate, cents to euros, one column times another', () => {
  const header = ['date', 'hours', 'rate', 'cents']
  const cost = (from: object) => {
    const file = applyMapping(mapping({ numbers: { BilledCost: from, PricingQuantity: { column: 'hours' } } }), header, 'x')
    if ('problems' in file) throw new Error(JSON.stringify(file.problems))
    const row = file.row(['2026-10-03', '7.5', '61.50', '1250'], 1)
    return row !== 'left out' && 'texts' in row ? row.texts[file.header.indexOf('BilledCost')] : row
  }
  expect([
    cost({ column: 'hours', times: '61.5' }),
    cost({ column: 'hours', timesColumn: 'rate' }),
    cost({ column: 'cents', times: '0.01' }),
  ]).toEqual(['461.25', '461.25', '12.5'])
})

it('a row that is wrong says its own column, value and how to mend it, once', () => {
  const file = applyMapping(mapping({}), ['date', 'amount'], 'x')
  if ('problems' in file) throw new Error('the mapping should do')
  const wrong = file.row(['soon', '1,5'], 4)
  expect(wrong !== 'left out' && 'problems' in wrong && wrong.problems.length).toBe(2)
  expect(file.row(['soon', '1,5'], 4)).toEqual({
    problems: expect.arrayContaining([
      { row: 4, column: 'amount', value: '1,5', reason: expect.stringContaining('not a number'), mend: expect.any(String) },
      { row: 4, column: 'date', value: 'soon', reason: expect.stringContaining('not a date'), mend: expect.any(String) },
    ]),
  })
})

it('names the columns that a file lacks, and what a mapping does not say', () => {
  const lacking = applyMapping(mapping({ tags: { team: 'Team' } }), ['date'], 'x')
  expect('problems' in lacking && lacking.problems.map(p => p.column)).toEqual(['amount', 'Team'])
  const silent = applyMapping(mappingSchema.parse({}), ['a'], 'x')
  expect('problems' in silent && silent.problems.map(p => p.column)).toEqual(['BilledCost', 'ChargePeriodStart', 'BillingCurrency'])
})

it('suggests from names and first rows: delimiter, formats, currency, sums below, quantity × rate', () => {
  expect(likelyDelimiter('a;b;c\n1;"x;y";3\n')).toBe(';')
  expect(likelyDelimiter('a\tb\n1,5\t2\n')).toBe('\t')
  expect(
    suggestMapping(
      ['Month', 'Department', 'Hours', 'Rate'],
      [
        ['2026-10', 'Booking', '12,5', '61,50'],
        ['Total', '', '12,5', ''],
      ],
      ';',
    ),
  ).toMatchObject({
    dateFormat: 'YYYY-MM',
    lasts: 'month',
    decimal: ',',
    numbers: { BilledCost: { column: 'Hours', timesColumn: 'Rate' } },
    texts: { SubAccountName: { column: 'Department' } },
    leaveOutRows: [{ column: 'Month', is: 'Total' }],
  })
})
