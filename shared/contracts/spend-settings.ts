import { z } from 'zod'
import { namedRecord } from '../../core/text/named-record'
import { isCurrency } from '../../core/money/currency'
import { isLookupBase } from '../../core/spend/dimensions'
import { overlaps } from '../../core/spend/lookup'
import { rounded } from '../../core/spend/reconcile'
import { amountText, day, month } from './common'
import { costMeasure } from './spend'
import { tableFormat } from './spend-export'

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

/** The currency that the company reports in: what cost centres have directly is compared in it; null where nobody has said. */
const reportCurrency = z.string().refine(isCurrency, 'use the three-letter code of a currency in use, such as EUR').nullable()
export const reportCurrencyChange = z.object({ reportCurrency })

/** A tag that usage must have: where, and with which values; none named stands for all. */
const requiredTag = z.object({
  key: z.string().trim().min(1, 'name the tag').max(128),
  sources: z.array(z.string().min(1)).max(100).default([]),
  subAccounts: z.array(z.string().min(1)).max(1000).default([]),
  values: z.array(z.string().trim().min(1, 'an allowed value is empty')).max(1000).default([]),
})
export const requiredTags = z.object({
  tags: z
    .array(requiredTag)
    .max(50)
    .superRefine((tags, context) => {
      tags.forEach(({ key }, i) => {
        if (tags.findIndex(other => other.key === key) !== i)
          context.addIssue({ code: 'custom', path: [i, 'key'], message: `«${key}» is required twice: put both into one` })
      })
    }),
})
export type RequiredTags = z.infer<typeof requiredTags>

export const referenceBody = accountTree.extend({
  aliases: aliases.default({}),
  skus: namedRecord(skuEntry).default({}),
  reportCurrency: reportCurrency.default(null),
  requiredTags: requiredTags.shape.tags.default([]),
})
export type ReferenceBody = z.infer<typeof referenceBody>
export const referenceState = z.object({ body: referenceBody, who: z.string().nullable(), savedAt: z.string().nullable() })

const LARGEST_LOOKUP = 100_000
const lookupEntry = z
  .object({
    key: z.string().min(1),
    /** Where the key is a pattern, in which `*` stands for any text. */
    match: z.literal('pattern', { error: 'write pattern, or leave it out' }).optional(),
    from: day.nullable().default(null),
    until: day.nullable().default(null),
    values: namedRecord(z.string().min(1)),
  })
  .refine(({ from, until }) => from === null || until === null || from < until, {
    path: ['until'],
    message: 'the entry ends before it begins: `until` is the day from which on it does not hold',
  })

/** A table that says something of each value of a dimension, such as the division of each sub account. */
export const lookup = z
  .object({
    by: z.string().refine(isLookupBase, 'a lookup goes by a column of the bill, such as SubAccountName, or by a tag, written Tags/KEY'),
    fields: z.array(z.string().min(1).max(80)).min(1, 'name at least one field').max(50),
    entries: z.array(lookupEntry).max(LARGEST_LOOKUP, `a lookup has at most ${LARGEST_LOOKUP} entries`),
  })
  .superRefine(({ fields, entries }, context) => {
    const wrong = (path: (string | number)[], message: string) => context.addIssue({ code: 'custom', path, message })
    fields.forEach((field, index) => {
      if (fields.indexOf(field) !== index) wrong(['fields', index], `the field «${field}» appears twice`)
    })
    entries.forEach(({ values }, index) => {
      for (const field of Object.keys(values))
        if (!fields.includes(field))
          wrong(['entries', index, 'values', field], `the lookup has no field «${field}»: name it among the fields`)
    })
    for (const { place, other } of overlaps(entries))
      wrong(
        ['entries', place],
        `«${entries[place]!.key}» holds on days on which entry ${other + 1} holds too: end one where the other begins`,
      )
  })
export const lookupName = z
  .string()
  .min(1)
  .max(80)
  .regex(/^[^/]+$/, 'no slash in the name of a lookup')
/** What is saved names the state it was held against, unless there is none yet. */
export const lookupSave = lookup.safeExtend({ basedOn: z.number().int().optional() })
export const lookupSaved = z.object({ name: z.string(), entries: z.number() })
export const lookupState = z.object({ name: z.string(), lookup, version: z.number(), who: z.string(), savedAt: z.string() })
export type LookupState = z.infer<typeof lookupState>
export const lookupList = z.object({
  lookups: z.array(
    z.object({ name: z.string(), by: z.string(), fields: z.array(z.string()), entries: z.number(), who: z.string(), savedAt: z.string() }),
  ),
})
export type LookupList = z.infer<typeof lookupList>

/** A billing month in which charges and a lookup are held against each other, by one of the costs. */
export const unmatchedAsked = z.object({ month, measure: costMeasure })
const lacking = { currency: z.string(), amount: amountText, count: z.number() }
export const unmatched = z.object({
  /** Values of which it says nothing on the day, the largest first, and how many there are beyond those that are listed. */
  unknown: z.array(z.object({ value: z.string(), ...lacking })),
  more: z.number(),
  /** What has no value of its dimension. */
  without: z.array(z.object(lacking)),
  /** Keys that no charge has, and how many there are beyond those that are listed. */
  unused: z.array(z.object({ key: z.string(), match: z.literal('pattern').nullable() })),
  moreUnused: z.number(),
})
export type UnmatchedKeys = z.infer<typeof unmatched>

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
  format: tableFormat,
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
  /** Whether it is the own one of who asks. */
  mine: z.boolean(),
  savedAt: z.string(),
  lastSentAt: z.string().nullable(),
  lastSaid: z.string().nullable(),
  /** When it is sent next; null where it is not. */
  nextAt: z.string().nullable().optional(),
})
export type SavedSentence = z.infer<typeof savedSentence>
export const savedSentenceList = z.object({ sentences: z.array(savedSentence) })
