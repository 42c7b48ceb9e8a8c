import type { RuleCharge, Rule } from './rule'

const category = (charge: RuleCharge, ...names: string[]) => names.some(name => charge.is('ChargeCategory', name))
const corrects = (charge: RuleCharge) => charge.is('ChargeClass', 'Correction')
const together = (a: string, b: string) => (charge: RuleCharge) => charge.has(a) !== charge.has(b)

/** Half a cent and a millionth: products of prices and quantities are rounded differently by everyone. */
const apart = (a: number, b: number) => Math.abs(a - b) > 0.005 + 1e-6 * Math.max(Math.abs(a), Math.abs(b))

/** The rules on relations. Source: FOCUS 1.0 to 1.2, the normative requirements of the columns named, recalled from memory. */
export const rules: readonly Rule[] = [
  {
    id: 'covered-usage-billed-once',
    says: 'Usage that a commitment covers has a billed cost of 0: it was billed with the purchase.',
    severity: 'error',
    since: '1.0',
    needs: ['ChargeCategory', 'CommitmentDiscountStatus', 'BilledCost'],
    amounts: ['BilledCost'],
    broken: c => category(c, 'Usage') && c.is('CommitmentDiscountStatus', 'Used') && c.amount('BilledCost') !== 0,
  },
  {
    id: 'tax-without-quantity',
    says: 'Tax has no pricing quantity.',
    severity: 'error',
    since: '1.0',
    needs: ['ChargeCategory', 'PricingQuantity'],
    broken: c => category(c, 'Tax') && c.has('PricingQuantity'),
  },
  {
    id: 'tax-without-pricing-category',
    says: 'Tax has no pricing category.',
    severity: 'error',
    since: '1.0',
    needs: ['ChargeCategory', 'PricingCategory'],
    broken: c => category(c, 'Tax') && c.has('PricingCategory'),
  },
  {
    id: 'quantity-with-unit',
    says: 'A pricing quantity and its unit stand together.',
    severity: 'error',
    since: '1.0',
    needs: ['PricingQuantity', 'PricingUnit'],
    broken: together('PricingQuantity', 'PricingUnit'),
  },
  {
    id: 'purchase-not-by-use',
    says: 'A purchase does not have the charge frequency Usage-Based.',
    severity: 'error',
    since: '1.0',
    needs: ['ChargeCategory', 'ChargeFrequency'],
    broken: c => category(c, 'Purchase') && c.is('ChargeFrequency', 'Usage-Based'),
  },
  {
    id: 'commitment-category-with-id',
    says: 'Commitment id and category stand together.',
    severity: 'error',
    since: '1.0',
    needs: ['CommitmentDiscountId', 'CommitmentDiscountCategory'],
    broken: together('CommitmentDiscountId', 'CommitmentDiscountCategory'),
  },
  {
    id: 'commitment-type-with-id',
    says: 'Commitment id and type stand together.',
    severity: 'error',
    since: '1.0',
    needs: ['CommitmentDiscountId', 'CommitmentDiscountType'],
    broken: together('CommitmentDiscountId', 'CommitmentDiscountType'),
  },
  {
    id: 'commitment-status-of-usage',
    says: 'Usage under a commitment says whether it was used; nothing else does.',
    severity: 'error',
    since: '1.0',
    needs: ['ChargeCategory', 'CommitmentDiscountId', 'CommitmentDiscountStatus'],
    broken: c =>
      c.has('CommitmentDiscountStatus')
        ? !c.has('CommitmentDiscountId') || !category(c, 'Usage')
        : c.has('CommitmentDiscountId') && category(c, 'Usage'),
  },
  {
    id: 'commitment-name-with-id',
    says: 'A commitment that is named has an id.',
    severity: 'warning',
    since: '1.0',
    needs: ['CommitmentDiscountId', 'CommitmentDiscountName'],
    broken: c => c.has('CommitmentDiscountName') && !c.has('CommitmentDiscountId'),
  },
  {
    id: 'covered-usage-is-committed',
    says: 'Usage that a commitment covers has the pricing category Committed.',
    severity: 'warning',
    since: '1.0',
    needs: ['CommitmentDiscountStatus', 'PricingCategory'],
    broken: c => c.is('CommitmentDiscountStatus', 'Used') && !corrects(c) && !c.is('PricingCategory', 'Committed'),
  },
  {
    id: 'commitment-purchase-effective-later',
    says: 'The purchase of a commitment has an effective cost of 0: its cost comes with what it covers.',
    severity: 'warning',
    since: '1.0',
    needs: ['ChargeCategory', 'CommitmentDiscountId', 'EffectiveCost'],
    amounts: ['EffectiveCost'],
    broken: c => category(c, 'Purchase') && c.has('CommitmentDiscountId') && c.amount('EffectiveCost') !== 0,
  },
  {
    id: 'reservation-status-with-id',
    says: 'Usage under a capacity reservation says whether it was used.',
    severity: 'warning',
    since: '1.1',
    needs: ['ChargeCategory', 'CapacityReservationId', 'CapacityReservationStatus'],
    broken: c => c.has('CapacityReservationStatus') !== (c.has('CapacityReservationId') && category(c, 'Usage')),
  },
  {
    id: 'list-at-least-contracted',
    says: 'List cost is at least contracted cost in size.',
    severity: 'warning',
    since: '1.0',
    needs: ['ContractedCost', 'ListCost'],
    amounts: ['ContractedCost', 'ListCost'],
    broken: c => Math.abs(c.amount('ListCost')) < Math.abs(c.amount('ContractedCost')),
  },
  {
    id: 'quantity-of-usage',
    says: 'Usage and purchases have a pricing quantity, corrections aside.',
    severity: 'warning',
    since: '1.0',
    needs: ['ChargeCategory', 'PricingQuantity'],
    broken: c => category(c, 'Usage', 'Purchase') && !corrects(c) && !c.has('PricingQuantity'),
  },
  {
    id: 'pricing-category-of-usage',
    says: 'Usage and purchases have a pricing category, corrections aside.',
    severity: 'warning',
    since: '1.0',
    needs: ['ChargeCategory', 'PricingCategory'],
    broken: c => category(c, 'Usage', 'Purchase') && !corrects(c) && !c.has('PricingCategory'),
  },
  {
    id: 'sku-of-usage',
    says: 'Usage and purchases name their SKU, corrections aside.',
    severity: 'warning',
    since: '1.0',
    needs: ['ChargeCategory', 'SkuId'],
    broken: c => category(c, 'Usage', 'Purchase') && !corrects(c) && !c.has('SkuId'),
  },
  {
    id: 'sku-price-with-sku',
    says: 'A SKU price belongs to a SKU.',
    severity: 'warning',
    since: '1.0',
    needs: ['SkuId', 'SkuPriceId'],
    broken: c => c.has('SkuPriceId') && !c.has('SkuId'),
  },
  {
    id: 'consumed-by-usage',
    says: 'Only usage is consumed.',
    severity: 'warning',
    since: '1.0',
    needs: ['ChargeCategory', 'ConsumedQuantity'],
    broken: c => c.has('ConsumedQuantity') && (!category(c, 'Usage') || c.is('CommitmentDiscountStatus', 'Unused')),
  },
  {
    id: 'consumed-with-unit',
    says: 'A consumed quantity and its unit stand together.',
    severity: 'warning',
    since: '1.0',
    needs: ['ConsumedQuantity', 'ConsumedUnit'],
    broken: together('ConsumedQuantity', 'ConsumedUnit'),
  },
  {
    id: 'list-cost-is-price-by-quantity',
    says: 'List cost is list unit price times pricing quantity.',
    severity: 'warning',
    since: '1.0',
    needs: ['ListUnitPrice', 'PricingQuantity', 'ListCost'],
    amounts: ['ListUnitPrice', 'PricingQuantity', 'ListCost'],
    broken: c =>
      c.has('ListUnitPrice') &&
      c.has('PricingQuantity') &&
      !corrects(c) &&
      apart(c.amount('ListUnitPrice') * c.amount('PricingQuantity'), c.amount('ListCost')),
  },
  {
    id: 'contracted-cost-is-price-by-quantity',
    says: 'Contracted cost is contracted unit price times pricing quantity.',
    severity: 'warning',
    since: '1.0',
    needs: ['ContractedUnitPrice', 'PricingQuantity', 'ContractedCost'],
    amounts: ['ContractedUnitPrice', 'PricingQuantity', 'ContractedCost'],
    broken: c =>
      c.has('ContractedUnitPrice') &&
      c.has('PricingQuantity') &&
      !corrects(c) &&
      apart(c.amount('ContractedUnitPrice') * c.amount('PricingQuantity'), c.amount('ContractedCost')),
  },
  {
    id: 'charge-within-billing-period',
    says: 'A charge period starts within its billing period, corrections aside.',
    severity: 'warning',
    since: '1.0',
    needs: ['BillingPeriodStart', 'BillingPeriodEnd', 'ChargePeriodStart'],
    broken: c =>
      !corrects(c) &&
      (c.seconds('ChargePeriodStart') < c.seconds('BillingPeriodStart') || c.seconds('ChargePeriodStart') >= c.seconds('BillingPeriodEnd')),
  },
  {
    id: 'region-name-with-id',
    says: 'A region that is named has an id.',
    severity: 'warning',
    since: '1.0',
    needs: ['RegionId', 'RegionName'],
    broken: c => c.has('RegionName') && !c.has('RegionId'),
  },
  {
    id: 'resource-name-with-id',
    says: 'A resource that is named has an id.',
    severity: 'warning',
    since: '1.0',
    needs: ['ResourceId', 'ResourceName'],
    broken: c => c.has('ResourceName') && !c.has('ResourceId'),
  },
  {
    id: 'sub-account-name-with-id',
    says: 'A sub account that is named has an id.',
    severity: 'warning',
    since: '1.0',
    needs: ['SubAccountId', 'SubAccountName'],
    broken: c => c.has('SubAccountName') && !c.has('SubAccountId'),
  },
]
