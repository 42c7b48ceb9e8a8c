// What is legal is taken and what is not is refused with its place: years, currencies by date, columns nearly named, files that are none.
import { expect, it } from 'vitest'
import { checkHeader, meantColumn } from '../../../core/focus/check'
import { Intake } from '../../../core/focus/intake/intake'
import { applyMapping } from '../../../core/focus/mapping/apply-mapping'
import type { Mapping } from '../../../core/focus/mapping/mapping'
import { likelyDelimiter, likelyTitleLines, suggestMapping } from '../../../core/focus/mapping/suggest-mapping'
import { currencies, isCurrencyOn } from '../../../core/money/currency'
import { fileColumns, type FileCharge } from '../../../demo/focus-file'
import { charge } from '../../support/charges'
import { take } from '../../support/intake'

const header = [...new Set([...fileColumns, ...Object.keys(charge())])]
const cells = (more: FileCharge) => header.map(name => String((charge(more) as Record<string, unknown>)[name] ?? ''))
const problems = (more: FileCharge) =>
  take(header, [cells({}), cells(more)]).problems.map(({ row, column, reason }) => [row, column, reason])
const on = (day: string, next: string) => ({ ChargePeriodStart: `${day}T00:00:00Z`, ChargePeriodEnd: `${next}T00:00:00Z` })

it('refuses days outside the years 2000 to 2100 with their row, and takes the first and the last', () => {
  expect(problems(on('1999-12-31', '2000-01-01'))).toEqual([[2, 'ChargePeriodStart', 'is outside the years 2000 to 2100']])
  expect(problems(on('2100-12-31', '2101-01-02'))).toEqual([[2, 'ChargePeriodEnd', 'is outside the years 2000 to 2100']])
  expect(problems(on('2000-01-01', '2000-01-02'))).toEqual([])
  expect(problems(on('2100-12-31', '2101-01-01'))).toEqual([])
})

it('takes a currency that was in use on the day of the charge, and only then', () => {
  expect(problems({ ...on('2025-12-31', '2026-01-01'), BillingCurrency: 'BGN' })).toEqual([])
  expect(problems({ ...on('2026-01-01', '2026-01-02'), BillingCurrency: 'BGN' })).toEqual([
    [2, 'BillingCurrency', 'was not in use on 2026-01-01'],
  ])
  expect(problems({ ...on('2022-12-31', '2023-01-01'), BillingCurrency: 'HRK' })).toEqual([])
  expect(problems({ ...on('2023-01-01', '2023-01-02'), BillingCurrency: 'HRK' })).toEqual([
    [2, 'BillingCurrency', 'was not in use on 2023-01-01'],
  ])
  expect(problems({ ...on('2024-01-01', '2024-01-02'), BillingCurrency: 'XCG' })).toHaveLength(1)
  expect(currencies.every(code => isCurrencyOn(code, '2026-11-01'))).toBe(true)
  expect(isCurrencyOn('constructor', '2026-11-01')).toBe(false)
})

it('says which column is most likely meant, and which stand empty', () => {
  expect(meantColumn('Resource Id', ['Resource Id'])).toBe('ResourceId')
  expect(meantColumn('RegoinName', [])).toBe('RegionName')
  expect(meantColumn('service_name', ['ServiceName'])).toBeNull() // the right one is there too
  expect(['x_ResourceIds', 'constructor', '__proto__', 'Team'].map(name => meantColumn(name, []))).toEqual([null, null, null, null])
  const intake = new Intake(['Resource Id', ...header], { decode: () => '', note: () => {}, entryId: () => 1 })
  ;['r', ...cells({ CommitmentDiscountId: '', SubAccountId: '' })].forEach((text, i) => intake.setText(i, text))
  intake.endRow('file')
  const { empty, meant } = intake.conformance().columns
  expect(meant).toEqual([])
  expect(empty).toContain('ChargeClass')
  expect(empty).not.toContain('ChargeCategory')
  expect(empty).not.toContain('PricingQuantity')
})

it('of a file that is no FOCUS one sentence is said', () => {
  for (const first of [['%PDF-1.7'], ['{"a": 1', '"b": 2}'], ['Date', 'Cost', 'constructor']]) {
    const found = checkHeader(first)
    expect(found).toHaveLength(1)
    expect(found[0]!.reason).toContain('no FOCUS file')
  }
  // one that nearly is says what it lacks
  expect(checkHeader(['BilledCost', 'EffectiveCost']).length).toBeGreaterThan(10)
})

const mapping: Mapping = {
  ...suggestMapping(['Date', 'Cost', 'Currency', 'constructor'], [['2026-10-01', '1', 'EUR', 'a']], ','),
  tags: { __proto__: 'x', constructor: 'constructor' } as never,
}

it('a mapped row with more or fewer cells than the header, or a heading twice, is refused with its place', () => {
  const file = applyMapping({ ...mapping, tags: {} }, ['Date', 'Cost', 'Currency', 'Note'], 'supplier')
  if ('problems' in file) throw new Error('the mapping fits')
  // 1,234.50 without quotes is two cells: not a cost of 1
  expect(file.row(['2026-10-01', '1', '234.50', 'EUR', ''], 7)).toMatchObject({
    problems: [{ row: 7, reason: 'the row has 5 cells where the header names 4' }],
  })
  expect(file.row(['2026-10-01', '1', 'EUR'], 8)).toMatchObject({
    problems: [{ row: 8, reason: 'the row has 3 cells where the header names 4' }],
  })
  expect(file.row(['2026-10-01', '1', 'EUR', ''], 9)).toHaveProperty('texts')
  const twice = applyMapping({ ...mapping, tags: {} }, ['Date', 'Cost', 'Currency', 'Cost'], 'supplier')
  expect(twice).toMatchObject({ problems: [{ column: 'Cost', reason: expect.stringContaining('two columns «Cost»') }] })
})

it('a number whose groups fit no rule is refused', () => {
  const grouped = { ...mapping, tags: {}, thousands: ',' as const }
  const file = applyMapping(grouped, ['Date', 'Cost', 'Currency'], 'supplier')
  if ('problems' in file) throw new Error('the mapping fits')
  const cost = (text: string) => {
    const row = file.row(['2026-10-01', text, 'EUR'], 1)
    return row !== 'left out' && 'texts' in row ? row.texts[file.header.indexOf('BilledCost')] : null
  }
  expect(['1,234.50', '1,234,567', '12', '-1,234'].map(cost)).toEqual(['1234.50', '1234567', '12', '-1234'])
  expect(['1,23', '12,34.50', '1234,567', ',123', '1,,234', '1.234,50'].map(cost)).toEqual([null, null, null, null, null, null])
})

it('finds the header below lines with a title', () => {
  const text =
    'Harbour Racks\nInvoice lines, October 2026\n\nDate;Cost;Currency;Project\n2026-10-01;1,50;EUR;a\n2026-10-02;2,50;EUR;b\nTotal;4,00;;\n'
  expect(likelyDelimiter(text)).toBe(';')
  expect(likelyTitleLines(text.split('\n').map(line => line.split(';')))).toBe(3)
  expect(
    likelyTitleLines([
      ['Date', 'Cost'],
      ['2026-10-01', '1'],
    ]),
  ).toBe(0)
  expect(likelyTitleLines([['one column']])).toBe(0)
})
