// FOCUS 1.0 to 1.2: the requirements on how columns of one charge go together. Each rule is named with the column of the specification
// whose
// text asks for it (normative requirements, recalled from memory), with a charge that keeps it and one that breaks it alone.
import { expect, it } from 'vitest'
import { focusColumns } from '../../core/focus/columns'
import { rules } from '../../core/focus/rules'
import { fileColumns, type FileCharge } from '../../demo/focus-file'
import { charge } from '../support/charges'
import { take } from '../support/intake'

const header = [...fileColumns, 'CapacityReservationId', 'CapacityReservationStatus']
type Charge = FileCharge & Partial<Record<'CapacityReservationId' | 'CapacityReservationStatus', string>>
const commitment: Charge = {
  CommitmentDiscountId: 'c',
  CommitmentDiscountCategory: 'Usage',
  CommitmentDiscountType: 'one year',
  CommitmentDiscountName: 'Servers',
  CommitmentDiscountStatus: 'Used',
  PricingCategory: 'Committed',
  BilledCost: '0',
}
const tax: Charge = {
  ChargeCategory: 'Tax',
  PricingQuantity: '',
  PricingUnit: '',
  PricingCategory: '',
  SkuId: '',
  SkuPriceId: '',
  SkuMeter: '',
  ConsumedQuantity: '',
  ConsumedUnit: '',
}
const purchase: Charge = { ChargeCategory: 'Purchase', ChargeFrequency: 'Recurring', ConsumedQuantity: '', ConsumedUnit: '' }

const cases: Record<string, { column: string; keeps: Charge; breaks: Charge }> = {
  'covered-usage-billed-once': { column: 'BilledCost', keeps: commitment, breaks: { ...commitment, BilledCost: '1', ListCost: '1' } },
  'tax-without-quantity': { column: 'PricingQuantity', keeps: tax, breaks: { ...tax, PricingQuantity: '1', PricingUnit: 'Hours' } },
  'tax-without-pricing-category': { column: 'PricingCategory', keeps: tax, breaks: { ...tax, PricingCategory: 'Standard' } },
  'quantity-with-unit': { column: 'PricingUnit', keeps: {}, breaks: { PricingUnit: '' } },
  'purchase-not-by-use': { column: 'ChargeFrequency', keeps: purchase, breaks: { ...purchase, ChargeFrequency: 'Usage-Based' } },
  'commitment-category-with-id': {
    column: 'CommitmentDiscountCategory',
    keeps: commitment,
    breaks: { ...commitment, CommitmentDiscountCategory: '' },
  },
  'commitment-type-with-id': { column: 'CommitmentDiscountType', keeps: commitment, breaks: { ...commitment, CommitmentDiscountType: '' } },
  'commitment-status-of-usage': {
    column: 'CommitmentDiscountStatus',
    keeps: commitment,
    breaks: { ...commitment, CommitmentDiscountStatus: '' },
  },
  'commitment-name-with-id': { column: 'CommitmentDiscountName', keeps: commitment, breaks: { CommitmentDiscountName: 'Servers' } },
  'covered-usage-is-committed': { column: 'PricingCategory', keeps: commitment, breaks: { ...commitment, PricingCategory: 'Standard' } },
  'commitment-purchase-effective-later': {
    column: 'EffectiveCost',
    keeps: {
      ...purchase,
      ...commitment,
      CommitmentDiscountStatus: '',
      PricingCategory: 'Standard',
      BilledCost: '9',
      ListCost: '9',
      ContractedCost: '9',
      EffectiveCost: '0',
    },
    breaks: {
      ...purchase,
      ...commitment,
      CommitmentDiscountStatus: '',
      PricingCategory: 'Standard',
      BilledCost: '9',
      ListCost: '9',
      ContractedCost: '9',
      EffectiveCost: '9',
    },
  },
  'reservation-status-with-id': {
    column: 'CapacityReservationStatus',
    keeps: { CapacityReservationId: 'r', CapacityReservationStatus: 'Used' },
    breaks: { CapacityReservationId: 'r' },
  },
  'list-at-least-contracted': {
    column: 'ListCost',
    keeps: { ListCost: '-2', ContractedCost: '-1' },
    breaks: { ListCost: '-1', ContractedCost: '-2' },
  },
  'quantity-of-usage': {
    column: 'PricingQuantity',
    keeps: { PricingQuantity: '', PricingUnit: '', PricingCategory: 'Standard', ChargeClass: 'Correction' },
    breaks: { PricingQuantity: '', PricingUnit: '' },
  },
  'pricing-category-of-usage': { column: 'PricingCategory', keeps: {}, breaks: { PricingCategory: '' } },
  'sku-of-usage': { column: 'SkuId', keeps: {}, breaks: { SkuId: '', SkuPriceId: '' } },
  'sku-price-with-sku': {
    column: 'SkuPriceId',
    keeps: {},
    breaks: { SkuId: '', ChargeCategory: 'Credit', ConsumedQuantity: '', ConsumedUnit: '' },
  },
  'consumed-by-usage': { column: 'ConsumedQuantity', keeps: {}, breaks: { ChargeCategory: 'Credit' } },
  'consumed-with-unit': { column: 'ConsumedUnit', keeps: {}, breaks: { ConsumedUnit: '' } },
  'list-cost-is-price-by-quantity': {
    column: 'ListCost',
    keeps: { ListUnitPrice: '0.5', PricingQuantity: '24', ListCost: '12', BilledCost: '12' },
    breaks: { ListUnitPrice: '0.5', PricingQuantity: '24', ListCost: '13', BilledCost: '12', ContractedCost: '12' },
  },
  'contracted-cost-is-price-by-quantity': {
    column: 'ContractedCost',
    keeps: { ContractedUnitPrice: '0.5', PricingQuantity: '24', ContractedCost: '12', BilledCost: '12' },
    breaks: { ContractedUnitPrice: '0.5', PricingQuantity: '24', ContractedCost: '11', BilledCost: '12' },
  },
  'charge-within-billing-period': {
    column: 'ChargePeriodStart',
    keeps: { ChargePeriodStart: '2026-09-30T00:00:00Z', ChargeClass: 'Correction' },
    breaks: { ChargePeriodStart: '2026-09-30T00:00:00Z' },
  },
  'region-name-with-id': { column: 'RegionName', keeps: {}, breaks: { RegionId: '' } },
  'resource-name-with-id': { column: 'ResourceName', keeps: {}, breaks: { ResourceId: '' } },
  'sub-account-name-with-id': { column: 'SubAccountName', keeps: {}, breaks: { SubAccountId: '' } },
}

const broken = (more: Charge) => {
  const row = { ...charge(more as FileCharge), ...more } as Charge
  return take(header, [header.map(column => row[column as keyof Charge] ?? '')])
    .intake.conformance()
    .rules.filter(rule => rule.rows)
    .map(rule => rule.id)
}

it('every rule has a case here, and speaks of columns of the specification', () => {
  expect(Object.keys(cases).sort()).toEqual(rules.map(rule => rule.id).sort())
  const known = new Set(focusColumns.map(column => column.name))
  for (const rule of rules) expect(rule.needs.filter(column => !known.has(column))).toEqual([])
})

it.each(rules.map(rule => [rule.id, rule] as const))('%s', (id, rule) => {
  const { column, keeps, breaks } = cases[id]!
  expect(rule.needs).toContain(column)
  expect(broken(keeps)).not.toContain(id)
  expect(broken(breaks)).toContain(id)
  // alone: no other error comes with it, so that the error is the rule's own
  expect(broken(breaks).filter(other => other !== id && rules.find(r => r.id === other)!.severity === 'error')).toEqual([])
})

it('without a column that it needs a rule falls away', () => {
  const without = header.filter(column => column !== 'CommitmentDiscountStatus')
  const row = charge({ ...commitment, BilledCost: '1' } as FileCharge) as Charge
  expect(
    take(without, [without.map(column => row[column as keyof Charge] ?? '')])
      .intake.conformance()
      .rules.map(rule => rule.id),
  ).not.toContain('covered-usage-billed-once')
})
