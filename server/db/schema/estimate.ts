import { integer, jsonb, pgTable, primaryKey, text, timestamp } from 'drizzle-orm/pg-core'
import type { Estimate } from '../../../core/estimate/estimate'

/** Every saved state of an estimate: its inputs, never its totals. The newest counts. */
export const estimateVersion = pgTable('estimate_version', {
  estimateId: text('estimate_id').notNull(),
  version: integer('version').notNull(),
  body: jsonb('body').$type<Estimate>().notNull(),
  who: text('who').notNull(),
  savedAt: timestamp('saved_at', { withTimezone: true, mode: 'string' }).notNull().defaultNow(),
}, table => [primaryKey({ columns: [table.estimateId, table.version] })])
