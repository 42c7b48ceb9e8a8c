import { focusColumns } from './columns'

/**
 * Charges are kept as a star: a narrow row of amounts with keys into dictionaries. Each dictionary holds the distinct
 * combinations of the columns named here.
 */
export const dictionaries = {
  billingAccount: ['BillingAccountId', 'BillingAccountName', 'BillingAccountType', 'ProviderName', 'PublisherName', 'InvoiceIssuerName'],
  subAccount: ['SubAccountId', 'SubAccountName', 'SubAccountType'],
  resource: ['ResourceId', 'ResourceName', 'ResourceType', 'RegionId', 'RegionName', 'AvailabilityZone'],
  sku: ['ServiceCategory', 'ServiceName', 'ServiceSubcategory', 'SkuId', 'SkuMeter'],
  price: ['SkuPriceId', 'SkuPriceDetails', 'PricingCategory', 'PricingUnit', 'ConsumedUnit', 'ListUnitPrice', 'ContractedUnitPrice'],
  commitment: [
    'CommitmentDiscountCategory',
    'CommitmentDiscountId',
    'CommitmentDiscountName',
    'CommitmentDiscountStatus',
    'CommitmentDiscountType',
    'CommitmentDiscountUnit',
    'CapacityReservationId',
    'CapacityReservationStatus',
  ],
  chargeKind: ['ChargeCategory', 'ChargeClass', 'ChargeFrequency', 'ChargeDescription', 'InvoiceId'],
  tagSet: ['Tags'],
  /** Every column that has no place of its own, unknown ones too, as one JSON object. */
  others: ['Others'],
} as const satisfies Record<string, readonly string[]>

export type DictionaryName = keyof typeof dictionaries
export const dictionaryNames = Object.keys(dictionaries) as DictionaryName[]

/** Columns that stand on the charge itself. */
export const amountColumns = ['BilledCost', 'EffectiveCost', 'ListCost', 'ContractedCost'] as const
export const quantityColumns = ['PricingQuantity', 'ConsumedQuantity'] as const
export const ownColumns: readonly string[] = [
  ...amountColumns,
  ...quantityColumns,
  'BillingCurrency',
  'BillingPeriodStart',
  'BillingPeriodEnd',
  'ChargePeriodStart',
  'ChargePeriodEnd',
]

const dictionaryOf = new Map<string, DictionaryName>(
  dictionaryNames.flatMap(name => dictionaries[name].map(column => [column, name] as const)),
)

/** The dictionary that holds a column; undefined for columns of the charge itself and for unknown ones. */
export function dictionaryFor(column: string): DictionaryName | undefined {
  return dictionaryOf.get(column)
}

const TAG = 'Tags/'

/** `Tags/team` names the tag `team`. */
export function tagKey(dimension: string): string | null {
  return dimension.startsWith(TAG) && dimension.length > TAG.length ? dimension.slice(TAG.length) : null
}

export function tagDimension(key: string): string {
  return TAG + key
}

/** FOCUS columns that spend can be split by and narrowed to; any tag key comes beside them. */
export const dimensionColumns: readonly string[] = focusColumns
  .filter(column => column.type === 'string' && dictionaryOf.has(column.name))
  .map(column => column.name)
