import { tagKey } from '../../core/focus/star'

/** How a dimension is called in a sentence. FOCUS names are for the address and the API. */
const labels: Record<string, string> = {
  ProviderName: 'provider', PublisherName: 'publisher', InvoiceIssuerName: 'invoice issuer', BillingAccountId: 'billing account id', BillingAccountName: 'billing account', BillingAccountType: 'billing account type',
  SubAccountId: 'sub account id', SubAccountName: 'sub account', SubAccountType: 'sub account type', ResourceId: 'resource', ResourceName: 'resource name', ResourceType: 'resource type', RegionId: 'region', RegionName: 'region name', AvailabilityZone: 'availability zone',
  ServiceCategory: 'service category', ServiceName: 'service', ServiceSubcategory: 'service subcategory', SkuId: 'SKU', SkuMeter: 'SKU meter', SkuPriceId: 'SKU price', PricingCategory: 'pricing category', PricingUnit: 'pricing unit', ConsumedUnit: 'consumed unit',
  CommitmentDiscountId: 'commitment id', CommitmentDiscountName: 'commitment', CommitmentDiscountCategory: 'commitment category', CommitmentDiscountStatus: 'commitment status', CommitmentDiscountType: 'commitment type', CommitmentDiscountUnit: 'commitment unit',
  CapacityReservationId: 'capacity reservation', CapacityReservationStatus: 'capacity reservation status', ChargeCategory: 'charge category', ChargeClass: 'charge class', ChargeDescription: 'charge description', ChargeFrequency: 'charge frequency', InvoiceId: 'invoice',
}

/** The dimensions most looked at, first in every list. */
export const usualDimensions = ['ProviderName', 'SubAccountName', 'ServiceName', 'RegionId', 'SkuMeter', 'SkuId', 'ResourceId', 'ChargeCategory']

/** A column that says in words what an id means, asked for together with it. */
export const companionOf: Record<string, string> = { ResourceId: 'ResourceName' }

export function dimensionLabel(dimension: string): string {
  const key = tagKey(dimension)
  return key === null ? labels[dimension] ?? dimension : `${key} tag`
}

/** A value as it is shown; money without a value is named too. */
export function valueLabel(dimension: string, value: string | null): string {
  return value ?? `no ${dimensionLabel(dimension)}`
}
