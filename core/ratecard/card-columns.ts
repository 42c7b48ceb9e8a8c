/** A rate card as a table: one line for each of its parts, told apart by the first column. */
export const cardColumns = [
  'row',
  'provider',
  'currency',
  'valid from',
  'region',
  'name',
  'residency',
  'zones',
  'size',
  'vcpu',
  'memory gb',
  'architecture',
  'systems',
  'disk classes',
  'dedicated',
  'sku',
  'service',
  'meter',
  'variant',
  'unit',
  'tiering',
  'from',
  'to',
  'price',
  'free allowance',
  'minimum quantity',
  'minimum charge',
  'charged',
  'includes',
  'service level',
  'excludes',
  'years',
  'paid',
  'upfront price',
  'hourly price',
] as const
/** A heading that cards had before. */
export const EARLIER_PAID = 'upfront'
/** A column of the table, of today or before. */
export type Column = (typeof cardColumns)[number] | typeof EARLIER_PAID
/** A line of the table by column. */
export type Line = Partial<Record<Column, string | undefined>>

const columnOf: Record<string, Column> = {
  freeAllowance: 'free allowance',
  minimumQuantity: 'minimum quantity',
  minimumCharge: 'minimum charge',
  serviceLevel: 'service level',
  tiers: 'price',
  commitments: 'years',
  memoryGb: 'memory gb',
  diskClasses: 'disk classes',
  upfrontPrice: 'upfront price',
  hourlyPrice: 'hourly price',
  validFrom: 'valid from',
  id: 'region',
}
/** The column that a field of the card stands in. */
export const columnNamed = (field: string | undefined, other: string) =>
  field === undefined ? other : Object.hasOwn(columnOf, field) ? columnOf[field]! : field
