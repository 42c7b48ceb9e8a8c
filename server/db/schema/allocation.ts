import { index, jsonb, pgTable, serial, text, timestamp } from 'drizzle-orm/pg-core'
import type { AllocationPlan } from '../../../core/allocation/plan'
import type { Lookup } from '../../../core/spend/lookup'

/** Every saved state of the cost-centre tree, its rules and its pool. The newest counts. */
export const allocationVersion = pgTable('allocation_version', {
  version: serial('version').primaryKey(),
  body: jsonb('body').$type<AllocationPlan>().notNull(),
  who: text('who').notNull(),
  savedAt: timestamp('saved_at', { withTimezone: true, mode: 'string' }).notNull().defaultNow(),
})

/** Every saved state of a lookup; the newest of a name counts, and one without a body was taken away. */
export const lookupVersion = pgTable(
  'lookup_version',
  {
    version: serial('version').primaryKey(),
    name: text('name').notNull(),
    body: jsonb('body').$type<Lookup>(),
    who: text('who').notNull(),
    savedAt: timestamp('saved_at', { withTimezone: true, mode: 'string' }).notNull().defaultNow(),
  },
  table => [index('lookup_version_name').on(table.name, table.version)],
)
