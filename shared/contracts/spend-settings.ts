import { z } from 'zod'
import { namedRecord } from '../../core/text/named-record'
import { rounded } from '../../core/spend/reconcile'
import { amountText, day, month } from './common'

const plainTags = namedRecord(z.string().min(1), z.string().min(1))

/** Where accounts stand in the account tree, and the tags that everything in an account or a container inherits. */
export const accountTree = z.object({
  accounts: namedRecord(z.object({ path: z.array(z.string().min(1)).max(6).default([]), tags: plainTags.default({}) })).default({}),
  containerTags: namedRecord(plainTags).default({}),
})
export type AccountTree = z.infer<typeof accountTree>

/** Spellings that count as another one, by dimension. */
export const aliases = namedRecord(namedRecord(z.string().min(1)))

/** Own words for SKU codes and SKU meters, before those of the rate cards. */
export const skuEntry = z.object({ words: z.string().trim().min(1).max(300), charged: z.enum(['existing', 'use']).optional() })

export const referenceBody = accountTree.extend({ aliases: aliases.default({}), skus: namedRecord(skuEntry).default({}) })
export type ReferenceBody = z.infer<typeof referenceBody>
export const referenceState = z.object({ body: referenceBody, who: z.string().nullable(), savedAt: z.string().nullable() })

export const aliasChange = z.object({
  dimension: z.string().min(1),
  spellings: z.array(z.string().min(1)).min(1).max(100),
  as: z.string().min(1).nullable(),
})
export const skuChange = z.object({ sku: z.string().min(1), entry: skuEntry.nullable() })

export const rateLine = z.object({ from: z.string(), to: z.string(), validFrom: day, rate: z.string() })
export const rateList = z.object({ rates: z.array(rateLine.extend({ who: z.string(), loadedAt: z.string() })) })
/** Rows of a CSV of rates, by column: from, to, valid from, rate. */
export const rateTable = z.object({ lines: z.array(z.record(z.string(), z.string())).max(100_000) })
export const ratesTaken = z.object({ rates: z.number(), changed: z.number() })

export const invoiceInput = z.object({
  issuer: z.string().trim().min(1),
  invoiceId: z.string().trim().min(1),
  month,
  currency: z.string().regex(/^[A-Z]{3}$/, 'use the three-letter code in capitals, such as EUR'),
  total: amountText,
  tax: amountText.nullable().default(null),
  /** How many lines it has, the tax among them; null where nobody has said. */
  lines: z.number({ error: 'write a whole number of lines' }).int().min(1).max(1_000_000).nullable().default(null),
  /** What its issuer rounds to the minor unit. */
  rounds: z.enum(rounded, { error: 'write lines or charges' }).default('lines'),
  note: z.string().max(1000).default(''),
})
export type InvoiceInput = z.infer<typeof invoiceInput>
export const invoiceTable = z.object({ lines: z.array(z.record(z.string(), z.string())).max(10_000) })

/** A Sentence as it is kept: the address of Spend, whose rolling period rolls on. */
export const savedSentenceBody = z.object({ query: z.record(z.string(), z.union([z.string(), z.array(z.string())])) })
export type SavedSentenceBody = z.infer<typeof savedSentenceBody>
export const deliverySchedule = z.object({
  to: z.array(z.email('write an address like name@example.org')).min(1).max(20),
  every: z.enum(['day', 'week', 'month']),
  format: z.enum(['csv', 'xlsx', 'parquet', 'json']),
})
export type DeliverySchedule = z.infer<typeof deliverySchedule>
export const savedSentenceInput = z.object({
  name: z.string().trim().min(1, 'give the sentence a name').max(120),
  folder: z.string().trim().max(80).default(''),
  description: z.string().trim().max(1000).default(''),
  shared: z.boolean().default(false),
  body: savedSentenceBody,
  schedule: deliverySchedule.nullable().default(null),
})
export type SavedSentenceInput = z.infer<typeof savedSentenceInput>
export const savedSentence = savedSentenceInput.extend({
  id: z.string(),
  owner: z.string(),
  savedAt: z.string(),
  lastSentAt: z.string().nullable(),
  lastSaid: z.string().nullable(),
  /** When it is sent next; null where it is not. */
  nextAt: z.string().nullable().optional(),
})
export type SavedSentence = z.infer<typeof savedSentence>
export const savedSentenceList = z.object({ sentences: z.array(savedSentence) })
