import type { FileCharge } from '../../demo/focus-file'
import { chargeLine, headerLine } from '../../demo/focus-file'

/** A charge that FOCUS accepts; give what matters to the test. */
export function charge(more: FileCharge = {}): FileCharge {
  const amount = more.BilledCost ?? '1'
  const others = Number.isFinite(Number(amount)) ? amount : '1' // a test of one wrong value is of one only
  return {
    BillingPeriodStart: '2026-10-01T00:00:00Z',
    BillingPeriodEnd: '2026-11-01T00:00:00Z',
    ChargePeriodStart: '2026-10-05T00:00:00Z',
    ChargePeriodEnd: '2026-10-06T00:00:00Z',
    BillingAccountId: 'acct-1',
    BillingAccountName: 'Account one',
    BillingCurrency: 'EUR',
    InvoiceIssuerName: 'Testcloud',
    ProviderName: 'Testcloud',
    PublisherName: 'Testcloud',
    SubAccountId: 'sub-1',
    SubAccountName: 'live',
    RegionId: 'r1',
    RegionName: 'Region one',
    ResourceId: 'res-1',
    ResourceName: 'one',
    ResourceType: 'Server',
    ServiceCategory: 'Compute',
    ServiceName: 'Servers',
    SkuId: 'SKU-1',
    SkuMeter: 'running, hours',
    SkuPriceId: 'SKU-1/1',
    ChargeCategory: 'Usage',
    ChargeDescription: 'Server',
    ChargeFrequency: 'Usage-Based',
    PricingCategory: 'Standard',
    PricingQuantity: '24',
    PricingUnit: 'Hours',
    ConsumedQuantity: '24',
    ConsumedUnit: 'Hours',
    ListCost: others,
    ContractedCost: others,
    EffectiveCost: others,
    ...more,
    BilledCost: amount,
  }
}

/** A FOCUS CSV file of these charges. */
export function focusCsv(charges: FileCharge[]): string {
  return headerLine + charges.map(chargeLine).join('')
}
