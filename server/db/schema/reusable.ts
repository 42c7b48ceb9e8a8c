import { jsonb, pgTable, text, timestamp } from 'drizzle-orm/pg-core'
import type { Pattern } from '../../../core/estimate/pattern'
import type { UpliftSet } from '../../../core/uplift/uplift-set'

const when = (name: string) => timestamp(name, { withTimezone: true, mode: 'string' })

/** The organisation's uplifts; changed in one place, held wherever they are attached. */
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
