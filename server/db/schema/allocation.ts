import { jsonb, pgTable, serial, text, timestamp } from 'drizzle-orm/pg-core'
import type { AllocationPlan } from '../../../core/allocation/plan'

/** Every saved state of the cost-centre tree, its rules and its pool. The newest counts. */
export const allocationVersion = pgTable('allocation_version', {
  version: serial('version').primaryKey(),
  body: jsonb('body').$type<AllocationPlan>().notNull(),
  who: text('who').notNull(),
  savedAt: timestamp('saved_at', { withTimezone: true, mode: 'string' }).notNull().defaultNow(),
})
