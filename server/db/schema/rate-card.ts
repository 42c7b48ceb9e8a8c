import { date, integer, jsonb, pgTable, primaryKey, text, timestamp } from 'drizzle-orm/pg-core'
import type { RateCard } from '../../../core/ratecard/rate-card'

/**
 * A provider's price list, by the day it holds from. What replaces one of the same day is a further revision: what was priced on the one
 * before keeps its figures.
 */
export const rateCard = pgTable(
  'rate_card',
  {
    provider: text('provider').notNull(),
    validFrom: date('valid_from', { mode: 'string' }).notNull(),
    revision: integer('revision').notNull().default(1),
    body: jsonb('body').$type<RateCard>().notNull(),
    who: text('who').notNull(),
    loadedAt: timestamp('loaded_at', { withTimezone: true, mode: 'string' }).notNull().defaultNow(),
  },
  table => [primaryKey({ columns: [table.provider, table.validFrom, table.revision] })],
)
