import { COST_CENTRE, COST_CENTRE_NAME, dimensionKind } from '../../core/spend/dimension'
import { tagDimension } from '../../core/focus/star'

/** How a dimension is called in a sentence. FOCUS names are for the address and the API. */
const labels: Record<string, string> = {
  ProviderName: 'provider',
  PublisherName: 'publisher',
  InvoiceIssuerName: 'invoice issuer',
  BillingAccountId: 'billing account id',
  BillingAccountName: 'billing account',
  BillingAccountType: 'billing account type',
  SubAccountId: 'sub account id',
  SubAccountName: 'sub account',
  SubAccountType: 'sub account type',
  ResourceId: 'resource',
  ResourceName: 'resource name',
  ResourceType: 'resource type',
  RegionId: 'region',
  RegionName: 'region name',
  AvailabilityZone: 'availability zone',
  ServiceCategory: 'service category',
  ServiceName: 'service',
  ServiceSubcategory: 'service subcategory',
  SkuId: 'SKU',
  SkuMeter: 'SKU meter',
  SkuPriceId: 'SKU price',
  PricingCategory: 'pricing category',
  PricingUnit: 'pricing unit',
  ConsumedUnit: 'consumed unit',
  ListUnitPrice: 'list unit price',
  ContractedUnitPrice: 'contracted unit price',
  CommitmentDiscountId: 'commitment id',
  CommitmentDiscountName: 'commitment',
  CommitmentDiscountCategory: 'commitment category',
  CommitmentDiscountStatus: 'commitment status',
  CommitmentDiscountType: 'commitment type',
  CommitmentDiscountUnit: 'commitment unit',
  CapacityReservationId: 'capacity reservation',
  CapacityReservationStatus: 'capacity reservation status',
  ChargeCategory: 'charge category',
  ChargeClass: 'charge class',
  ChargeDescription: 'charge description',
  ChargeFrequency: 'charge frequency',
  InvoiceId: 'invoice',
  ChargedFor: 'charged for',
  ServiceWhole: 'service with what it created',
  CostCentre: 'cost centre',
  CostCentreName: 'cost centre name',
  x_CreatedBy: 'created by',
  x_Protects: 'protects',
  x_Container: 'container path',
}
const detailLabels: Record<string, string> = {
  InstanceType: 'machine size',
  InstanceSeries: 'machine family',
  OperatingSystem: 'operating system',
  CoreCount: 'vCPU',
  MemorySize: 'memory, GB',
  StorageClass: 'storage class',
  x_Engine: 'engine',
}

/** The dimensions most looked at, first in every list. */
export const usualDimensions = [
  COST_CENTRE,
  'ProviderName',
  'SubAccountName',
  'ServiceName',
  'RegionId',
  'SkuMeter',
  'SkuId',
  'ResourceId',
  'ChargeCategory',
]

/** A column that says in words what an id means, asked for together with it. */
export const companionOf: Record<string, string> = { ResourceId: 'ResourceName', [COST_CENTRE]: COST_CENTRE_NAME }

/** Dimensions with the columns that name them. */
export const withCompanions = (dimensions: readonly string[]): string[] => [
  ...new Set(dimensions.flatMap(d => (companionOf[d] ? [d, companionOf[d]] : [d]))),
]

export function dimensionLabel(dimension: string): string {
  const kind = dimensionKind(dimension)
  switch (kind?.kind) {
    case 'tag':
      return `${kind.key} tag`
    case 'tag source':
      return `where the ${kind.key} tag comes from`
    case 'price detail':
      return Object.hasOwn(detailLabels, kind.key) ? detailLabels[kind.key]! : kind.key
    case 'container':
      return kind.level === 1 ? 'container, top level' : `container, ${kind.level} levels`
    case 'account tree':
      return kind.level === 1 ? 'account tree, top level' : `account tree, ${kind.level} levels`
    case 'lookup':
      return `${kind.field} of ${kind.lookup}`
    case 'cost centre':
      return kind.tree === null ? labels[dimension]! : `cost centre, tree ${kind.tree}`
    default:
      return Object.hasOwn(labels, dimension) ? labels[dimension]! : dimension
  }
}

/** A value as it is shown; money without a value is named too. */
export function valueLabel(dimension: string, value: string | null): string {
  if (value !== null) return value
  const kind = dimensionKind(dimension)?.kind
  return kind === 'cost centre' ? 'unallocated' : kind === 'charged for' ? 'not said by a rate card' : `no ${dimensionLabel(dimension)}`
}

/** The heading a dimension stands under in lists. */
export function dimensionGroup(dimension: string): string {
  const kind = dimensionKind(dimension)
  switch (kind?.kind) {
    case 'tag':
    case 'tag source':
      return 'tags'
    case 'container':
    case 'account tree':
      return 'accounts and containers'
    case 'price detail':
      return 'machines and what a price is for'
    case 'own column':
      return 'the provider’s own columns'
    case 'charged for':
    case 'service whole':
      return 'services and SKUs'
    case 'cost centre':
    case 'lookup':
      return 'cost centres and lookups'
    case 'column':
      if (kind.dictionary === 'billingAccount' || kind.dictionary === 'subAccount') return 'accounts and containers'
      if (kind.dictionary === 'resource') return 'resources and places'
      if (kind.dictionary === 'sku') return 'services and SKUs'
      if (kind.dictionary === 'price') return 'prices'
      return kind.dictionary === 'commitment' ? 'commitments' : 'charges and invoices'
    default:
      return 'others'
  }
}
export const dimensionGroups = [
  'cost centres and lookups',
  'accounts and containers',
  'services and SKUs',
  'resources and places',
  'tags',
  'machines and what a price is for',
  'charges and invoices',
  'prices',
  'commitments',
  'the provider’s own columns',
  'others',
]
export { tagDimension }
