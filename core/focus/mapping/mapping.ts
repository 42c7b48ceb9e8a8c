import { z } from 'zod'
import { namedRecord } from '../../text/named-record'

/**
 * Where a FOCUS column of a mapped file gets its value from: a column of the file, in other words where needed, or always the same text.
 */
const columnSource = z.union([
  z.object({ column: z.string().min(1), words: namedRecord(z.string()).optional() }),
  z.object({ constant: z.string() }),
])
export type ColumnSource = z.infer<typeof columnSource>

/** A number: a column times a factor (cents to euros, hours to money) or times another column (quantity × rate). */
const numberSource = z.union([
  z.object({
    column: z.string().min(1),
    times: z
      .string()
      .regex(/^-?\d+(\.\d+)?$/, 'write a factor like 0.01')
      .optional(),
    timesColumn: z.string().optional(),
  }),
  z.object({ constant: z.string().regex(/^-?\d+(\.\d+)?$/, 'write a number like 12.5') }),
])

export const dateFormats = [
  'ISO',
  'YYYY-MM-DD',
  'DD.MM.YYYY',
  'DD/MM/YYYY',
  'MM/DD/YYYY',
  'YYYYMMDD',
  'YYYY-MM',
  'MM/YYYY',
  'seconds',
] as const
export type DateFormat = (typeof dateFormats)[number]

/** How a file that is no FOCUS becomes charges: kept per source and applied to its next file again. */
export const mappingSchema = z.object({
  delimiter: z.enum([',', ';', '\t', '|']).default(','),
  encoding: z.enum(['utf-8', 'windows-1252', 'utf-16le']).default('utf-8'),
  /** Lines above the header. */
  skipLines: z.number().int().min(0).max(100).default(0),
  decimal: z.enum(['.', ',']).default('.'),
  thousands: z.enum(['', ',', '.', ' ', "'"]).default(''),
  dateFormat: z.enum(dateFormats).default('ISO'),
  /** How long a charge lasts where the file names no end. */
  lasts: z.enum(['hour', 'day', 'month']).default('day'),
  texts: namedRecord(columnSource).default({}),
  numbers: namedRecord(numberSource).default({}),
  times: namedRecord(z.object({ column: z.string().min(1) })).default({}),
  /** Tag keys and the columns that hold their values. */
  tags: namedRecord(z.string().min(1), z.string().min(1)).default({}),
  /** Rows to pass over: a column says one of these (a sum at the end, a heading in between). */
  leaveOutRows: z.array(z.object({ column: z.string().min(1), is: z.string() })).default([]),
})
export type Mapping = z.infer<typeof mappingSchema>

/** The FOCUS columns that a mapping can fill, by what they hold. */
export const mappedTexts = [
  'ProviderName',
  'PublisherName',
  'InvoiceIssuerName',
  'BillingAccountId',
  'BillingAccountName',
  'BillingCurrency',
  'SubAccountId',
  'SubAccountName',
  'ServiceCategory',
  'ServiceName',
  'SkuId',
  'SkuMeter',
  'ChargeCategory',
  'ChargeClass',
  'ChargeDescription',
  'ChargeFrequency',
  'PricingCategory',
  'PricingUnit',
  'ConsumedUnit',
  'ResourceId',
  'ResourceName',
  'ResourceType',
  'RegionId',
  'RegionName',
  'InvoiceId',
] as const
export const mappedNumbers = [
  'BilledCost',
  'EffectiveCost',
  'ListCost',
  'ContractedCost',
  'PricingQuantity',
  'ConsumedQuantity',
  'ListUnitPrice',
  'ContractedUnitPrice',
] as const
export const mappedTimes = ['ChargePeriodStart', 'ChargePeriodEnd', 'BillingPeriodStart', 'BillingPeriodEnd'] as const
