/** What a column of a FOCUS file may hold. */
export type ColumnType = 'string' | 'decimal' | 'datetime' | 'json'

/**
 * One column of the FinOps Open Cost and Usage Specification, 1.0 to 1.2. A mandatory one must be in the file; a nullable one may be empty.
 */
export type FocusColumn = {
  name: string
  since: '1.0' | '1.1' | '1.2'
  presence: 'mandatory' | 'conditional' | 'recommended'
  type: ColumnType
  nullable: boolean
  allowed?: readonly string[]
}

const column = (
  name: string,
  since: FocusColumn['since'],
  presence: FocusColumn['presence'],
  type: ColumnType,
  nullable: boolean,
  allowed?: string,
): FocusColumn => ({ name, since, presence, type, nullable, ...(allowed && { allowed: allowed.split('|') }) })

/** All columns by name. Source: FOCUS 1.0, 1.1 and 1.2, recalled from memory. */
export const focusColumns: readonly FocusColumn[] = [
  column('AvailabilityZone', '1.0', 'conditional', 'string', true),
  column('BilledCost', '1.0', 'mandatory', 'decimal', false),
  column('BillingAccountId', '1.0', 'mandatory', 'string', false),
  column('BillingAccountName', '1.0', 'mandatory', 'string', true),
  column('BillingAccountType', '1.2', 'conditional', 'string', true),
  column('BillingCurrency', '1.0', 'mandatory', 'string', false),
  column('BillingPeriodEnd', '1.0', 'mandatory', 'datetime', false),
  column('BillingPeriodStart', '1.0', 'mandatory', 'datetime', false),
  column('CapacityReservationId', '1.1', 'conditional', 'string', true),
  column('CapacityReservationStatus', '1.1', 'conditional', 'string', true, 'Used|Unused'),
  column('ChargeCategory', '1.0', 'mandatory', 'string', false, 'Usage|Purchase|Tax|Credit|Adjustment'),
  column('ChargeClass', '1.0', 'mandatory', 'string', true, 'Correction'),
  column('ChargeDescription', '1.0', 'mandatory', 'string', true),
  column('ChargeFrequency', '1.0', 'recommended', 'string', false, 'One-Time|Recurring|Usage-Based'),
  column('ChargePeriodEnd', '1.0', 'mandatory', 'datetime', false),
  column('ChargePeriodStart', '1.0', 'mandatory', 'datetime', false),
  column('CommitmentDiscountCategory', '1.0', 'conditional', 'string', true, 'Spend|Usage'),
  column('CommitmentDiscountId', '1.0', 'conditional', 'string', true),
  column('CommitmentDiscountName', '1.0', 'conditional', 'string', true),
  column('CommitmentDiscountQuantity', '1.1', 'conditional', 'decimal', true),
  column('CommitmentDiscountStatus', '1.0', 'conditional', 'string', true, 'Used|Unused'),
  column('CommitmentDiscountType', '1.0', 'conditional', 'string', true),
  column('CommitmentDiscountUnit', '1.1', 'conditional', 'string', true),
  column('ConsumedQuantity', '1.0', 'conditional', 'decimal', true),
  column('ConsumedUnit', '1.0', 'conditional', 'string', true),
  column('ContractedCost', '1.0', 'mandatory', 'decimal', false),
  column('ContractedUnitPrice', '1.0', 'conditional', 'decimal', true),
  column('EffectiveCost', '1.0', 'mandatory', 'decimal', false),
  column('InvoiceId', '1.2', 'conditional', 'string', true),
  column('InvoiceIssuerName', '1.0', 'mandatory', 'string', false),
  column('ListCost', '1.0', 'mandatory', 'decimal', false),
  column('ListUnitPrice', '1.0', 'conditional', 'decimal', true),
  column('PricingCategory', '1.0', 'conditional', 'string', true, 'Standard|Dynamic|Committed|Other'),
  column('PricingCurrency', '1.2', 'conditional', 'string', true),
  column('PricingCurrencyContractedUnitPrice', '1.2', 'conditional', 'decimal', true),
  column('PricingCurrencyEffectiveCost', '1.2', 'conditional', 'decimal', true),
  column('PricingCurrencyListUnitPrice', '1.2', 'conditional', 'decimal', true),
  column('PricingQuantity', '1.0', 'mandatory', 'decimal', true),
  column('PricingUnit', '1.0', 'mandatory', 'string', true),
  column('ProviderName', '1.0', 'mandatory', 'string', false),
  column('PublisherName', '1.0', 'mandatory', 'string', false),
  column('RegionId', '1.0', 'conditional', 'string', true),
  column('RegionName', '1.0', 'conditional', 'string', true),
  column('ResourceId', '1.0', 'conditional', 'string', true),
  column('ResourceName', '1.0', 'conditional', 'string', true),
  column('ResourceType', '1.0', 'conditional', 'string', true),
  column(
    'ServiceCategory',
    '1.0',
    'mandatory',
    'string',
    false,
    'AI and Machine Learning|Analytics|Business Applications|Compute|Databases|Developer Tools|Multicloud|Identity|Integration|Internet of Things|Management and Governance|Media|Migration|Mobile|Networking|Security|Storage|Web|Other',
  ),
  column('ServiceName', '1.0', 'mandatory', 'string', false),
  column('ServiceSubcategory', '1.1', 'recommended', 'string', true),
  column('SkuId', '1.0', 'conditional', 'string', true),
  column('SkuMeter', '1.1', 'conditional', 'string', true),
  column('SkuPriceDetails', '1.1', 'conditional', 'json', true),
  column('SkuPriceId', '1.0', 'conditional', 'string', true),
  column('SubAccountId', '1.0', 'conditional', 'string', true),
  column('SubAccountName', '1.0', 'conditional', 'string', true),
  column('SubAccountType', '1.2', 'conditional', 'string', true),
  column('Tags', '1.0', 'conditional', 'json', true),
]

const byName = new Map(focusColumns.map(c => [c.name, c]))

export function focusColumn(name: string): FocusColumn | undefined {
  return byName.get(name)
}
