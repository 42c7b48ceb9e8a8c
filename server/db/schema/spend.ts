import { boolean, date, integer, jsonb, numeric, pgTable, primaryKey, serial, text, timestamp } from 'drizzle-orm/pg-core'
import type { ReferenceBody, SavedSentenceBody, DeliverySchedule } from '../../../shared/contracts/spend-settings'

const when = (name: string) => timestamp(name, { withTimezone: true, mode: 'string' })

/** What is known beside the charges: aliases, the account tree, inherited tags, words for SKUs. One row, counted by versions. */
export const spendReference = pgTable('spend_reference', {
  id: integer('id').primaryKey(),
  body: jsonb('body').$type<ReferenceBody>().notNull(),
  who: text('who').notNull(),
  savedAt: when('saved_at').notNull().defaultNow(),
})

/** What one unit of a currency is worth in another from a day on. */
export const exchangeRate = pgTable(
  'exchange_rate',
  {
    from: text('from').notNull(),
    to: text('to').notNull(),
    validFrom: date('valid_from', { mode: 'string' }).notNull(),
    rate: numeric('rate').notNull(),
    who: text('who').notNull(),
    loadedAt: when('loaded_at').notNull().defaultNow(),
  },
  table => [primaryKey({ columns: [table.from, table.to, table.validFrom] })],
)

/** An invoice as the issuer sent it, held against the charges that name it. */
export const invoice = pgTable('invoice', {
  id: serial('id').primaryKey(),
  issuer: text('issuer').notNull(),
  invoiceId: text('invoice_id').notNull(),
  month: text('month').notNull(),
  currency: text('currency').notNull(),
  total: numeric('total').notNull(),
  tax: numeric('tax'),
  lines: integer('lines'),
  rounds: text('rounds').$type<'lines' | 'charges'>().notNull().default('lines'),
  note: text('note').notNull().default(''),
  who: text('who').notNull(),
  savedAt: when('saved_at').notNull().defaultNow(),
})

/** A Sentence kept under a name. */
export const savedSentence = pgTable('saved_sentence', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  folder: text('folder').notNull().default(''),
  description: text('description').notNull().default(''),
  owner: text('owner').notNull(),
  shared: boolean('shared').notNull().default(false),
  body: jsonb('body').$type<SavedSentenceBody>().notNull(),
  /** Who gets it and how often; its job says when. */
  schedule: jsonb('schedule').$type<DeliverySchedule>(),
  savedAt: when('saved_at').notNull().defaultNow(),
})

/** The address of a Sentence that is too long for one; the id is the hash of what it says, so that the same has one id. */
export const longSentence = pgTable('long_sentence', {
  id: text('id').primaryKey(),
  query: jsonb('query').$type<SavedSentenceBody['query']>().notNull(),
  savedAt: when('saved_at').notNull().defaultNow(),
})

/** Notes that people keep beside a resource, in Markdown. */
export const resourceNote = pgTable('resource_note', {
  resourceId: text('resource_id').primaryKey(),
  body: text('body').notNull(),
  who: text('who').notNull(),
  savedAt: when('saved_at').notNull().defaultNow(),
})
