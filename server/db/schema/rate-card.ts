import { date, jsonb, pgTable, primaryKey, text, timestamp } from 'drizzle-orm/pg-core'
import type { RateCard } from '../../../core/ratecard/rate-card'

/** A provider's price list, by the day it holds from. */
export const rateCard = pgTable('rate_card', {
  provider: text('provider').notNull(),
  validFrom: date('valid_from', { mode: 'string' }).notNull(),
  body: jsonb('body').$type<RateCard>().notNull(),
  who: text('who').notNull(),
  loadedAt: timestamp('loaded_at', { withTimezone: true, mode: 'string' }).notNull().defaultNow(),
}, table => [primaryKey({ columns: [table.provider, table.validFrom] })])
