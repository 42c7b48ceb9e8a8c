import { expect, it } from 'vitest'
import { checkHeader } from '../../../core/focus/check'
import { focusColumns } from '../../../core/focus/columns'
import { isDimension } from '../../../core/spend/dimensions'
import { fileColumns, type FileCharge } from '../../../demo/focus-file'
import { charge } from '../../support/charges'
import { take } from '../../support/intake'

const header = [...fileColumns]
const cells = (more: FileCharge) => header.map(column => charge(more)[column] ?? '')
const problems = (more: FileCharge) => take(header, [...Array.from({ length: 6 }, () => cells({})), cells(more)]).problems

it('takes a good row and keeps every value', () => {
  const {
    charges: [taken],
  } = take(header, [cells({ BilledCost: '1.5E-7', Tags: '{"b":1,"a":null}', x_ProjectCode: 'SK-1' })])
  expect(taken).toMatchObject({
    currency: 'EUR',
    amounts: { BilledCost: 150_000_000n },
    start: Date.UTC(2026, 9, 5) / 1000,
    entries: { tagSet: ['{"a":null,"b":1}'], others: ['{"x_ProjectCode":"SK-1"}'] },
  })
})

it.each<[string, FileCharge, string, string]>([
  ['a missing mandatory value', { ServiceName: '' }, 'ServiceName', 'missing'],
  ['a missing amount', { EffectiveCost: '' }, 'EffectiveCost', 'amount is missing'],
  ['text for a number', { ListCost: '1,50' }, 'ListCost', 'not a number'],
  ['a value that is not allowed', { ChargeCategory: 'Fee' }, 'ChargeCategory', 'not an allowed value'],
  ['an allowed value in the wrong case', { ChargeClass: 'correction' }, 'ChargeClass', 'not an allowed value'],
  ['an unknown currency', { BillingCurrency: 'EURO' }, 'BillingCurrency', 'ISO 4217'],
  ['a date without a time', { ChargePeriodStart: '2026-10-05' }, 'ChargePeriodStart', 'date and time'],
  ['a day the calendar does not have', { ChargePeriodStart: '2026-02-30T00:00:00Z' }, 'ChargePeriodStart', 'date and time'],
  ['a period that ends before it starts', { ChargePeriodEnd: '2026-10-04T00:00:00Z' }, 'ChargePeriodEnd', 'is not after'],
  ['an empty billing period', { BillingPeriodEnd: '2026-10-01T00:00:00Z' }, 'BillingPeriodEnd', 'is not after'],
  ['tags that are a list', { Tags: '["a"]' }, 'Tags', 'not a JSON object'],
  ['tags that are broken', { Tags: '{"a":' }, 'Tags', 'not a JSON object'],
  ['a tag with parts', { Tags: '{"a":{"b":1}}' }, 'Tags', 'more than one value'],
  ['an amount beyond all measure', { BilledCost: '1.1e15' }, 'BilledCost', 'larger than'],
])('refuses %s', (_, more, column, reason) => {
  const found = problems(more).filter(p => p.column === column)
  expect(found).toHaveLength(1)
  expect(found[0]!.row).toBe(7)
  expect(found[0]!.reason).toContain(reason)
  expect(found[0]!.mend).not.toBe('')
})

it('names every problem of a row', () => {
  expect(problems({ ServiceName: '', BillingCurrency: 'XX', ChargeCategory: 'Fee' }).map(p => p.column)).toEqual(
    expect.arrayContaining(['ServiceName', 'BillingCurrency', 'ChargeCategory']),
  )
})

it('refuses a row with too few cells', () => {
  expect(take(header, [cells({}), cells({}), cells({}).slice(1)]).problems[0]).toMatchObject({
    row: 3,
    column: null,
    reason: expect.stringContaining('cells'),
  })
})

it('reports what rounding does', () => {
  expect(
    take(header, [cells({ BilledCost: '0.1234567890123456' })])
      .intake.roundings.get('BilledCost')
      ?.difference.toFixed(),
  ).toBe('0.0000000000000004')
})

it('needs the mandatory columns and no others', () => {
  const mandatory = focusColumns.filter(c => c.presence === 'mandatory').map(c => c.name)
  expect(checkHeader(mandatory)).toEqual([])
  for (const name of mandatory) expect(checkHeader(mandatory.filter(c => c !== name)).map(p => p.column)).toEqual([name])
  expect(checkHeader([...mandatory, 'Tags', 'Tags'])[0]?.reason).toContain('twice')
  expect(checkHeader(mandatory.map(n => (n === 'BilledCost' ? 'billedcost' : n)))[0]?.mend).toContain('Rename «billedcost»')
  expect(checkHeader([])[0]?.reason).toContain('empty')
})

it('knows what spend can be split by', () => {
  expect(
    [
      'ServiceName',
      'Tags/team',
      'ResourceId',
      'x_ProjectCode',
      'SkuPriceDetails/InstanceType',
      'Container/2',
      'AccountTree/1',
      'ChargedFor',
      'ServiceWhole',
      'TagsFrom/team',
      'CostCentre',
      'CostCentre/teams',
      'Lookup/owners/owner',
    ].every(isDimension),
  ).toBe(true)
  expect(
    [
      'BilledCost',
      'Tags',
      'Tags/',
      'CostCentre/',
      'Lookup/owners',
      'Lookup//owner',
      'nonsense',
      'Others',
      'SkuPriceDetails',
      'Container/0',
      'AccountTree/x',
      'x_',
      'TagsFrom/',
    ].some(isDimension),
  ).toBe(false)
})
