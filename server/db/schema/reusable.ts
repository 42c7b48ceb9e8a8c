import { integer, jsonb, pgTable, text, timestamp } from 'drizzle-orm/pg-core'
import type { Pattern } from '../../../core/estimate/pattern'
import type { UpliftSet } from '../../../core/uplift/uplift-set'

const when = (name: string) => timestamp(name, { withTimezone: true, mode: 'string' })

/** The organisation's own charges; changed in one place, held wherever they are attached. */
export const upliftSet = pgTable('uplift_set', {
  id: text('id').primaryKey(),
  body: jsonb('body').$type<UpliftSet>().notNull(),
  who: text('who').notNull(),
  setAt: when('set_at').notNull().defaultNow(),
})

export const pattern = pgTable('pattern', {
  id: text('id').primaryKey(),
  body: jsonb('body').$type<Pattern>().notNull(),
  who: text('who').notNull(),
  savedAt: when('saved_at').notNull().defaultNow(),
})

/** How often a connection is asked for its rate card, and what came of it. */
export const cardSchedule = pgTable('card_schedule', {
  connection: text('connection').primaryKey(),
  /** Zero: only when someone asks. */
  everyHours: integer('every_hours').notNull(),
  lastAskedAt: when('last_asked_at'),
  lastSaid: text('last_said'),
})
