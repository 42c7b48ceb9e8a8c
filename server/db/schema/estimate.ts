import { boolean, date, integer, jsonb, pgTable, primaryKey, text, timestamp } from 'drizzle-orm/pg-core'
import type { Estimate } from '../../../core/estimate/estimate'
import type { EstimateDocument } from '../../../core/estimate/documents/document-types'

const when = (name: string) => timestamp(name, { withTimezone: true, mode: 'string' })

/** Every saved state of an estimate: its inputs, never its totals. The newest counts. */
export const estimateVersion = pgTable(
  'estimate_version',
  {
    estimateId: text('estimate_id').notNull(),
    version: integer('version').notNull(),
    body: jsonb('body').$type<Estimate>().notNull(),
    who: text('who').notNull(),
    savedAt: when('saved_at').notNull().defaultNow(),
    /** What a person calls this state, when it is one to come back to. */
    name: text('name'),
  },
  table => [primaryKey({ columns: [table.estimateId, table.version] })],
)

/** Where an estimate is filed, and whether it is put away: beside its versions, since neither changes what it says. */
export const estimateFiling = pgTable('estimate_filing', {
  estimateId: text('estimate_id').primaryKey(),
  folder: text('folder').notNull().default(''),
  putAway: boolean('put_away').notNull().default(false),
  who: text('who').notNull(),
  filedAt: when('filed_at').notNull().defaultNow(),
})

/** A link that shows one version to anyone who has it. What it shows was made when it was: nothing else is behind it. */
export const estimateLink = pgTable('estimate_link', {
  id: text('id').primaryKey(),
  /** Hash of the secret part of the address: the address itself is not kept. */
  secretHash: text('secret_hash').notNull().unique(),
  estimateId: text('estimate_id').notNull(),
  version: integer('version').notNull(),
  audience: text('audience').$type<EstimateDocument['audience']>().notNull(),
  body: jsonb('body').$type<EstimateDocument>().notNull(),
  expiresOn: date('expires_on', { mode: 'string' }).notNull(),
  revokedAt: when('revoked_at'),
  who: text('who').notNull(),
  madeAt: when('made_at').notNull().defaultNow(),
})
