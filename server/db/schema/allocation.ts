import { index, integer, jsonb, pgTable, primaryKey, serial, text, timestamp } from 'drizzle-orm/pg-core'
import type { Adjustment } from '../../../core/allocation/closing/adjustments'
import type { AllocationPlan } from '../../../core/allocation/plan'
import type { Settlement } from '../../../core/allocation/settle'
import type { Rate } from '../../../core/money/rates'
import type { Lookup } from '../../../core/spend/lookup'
import type { CostMeasure } from '../../../core/spend/question'

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

/** A tree of a closed month: what was settled, and what it carries of months closed before. A tree of null is the first. */
export type ClosedTree = { tree: string | null; settlement: Settlement; adjustments: Adjustment[] }

/** A billing month that is closed: what its statements say never changes. */
export const closedMonth = pgTable('closed_month', {
  month: text('month').primaryKey(),
  measure: text('measure').$type<CostMeasure>().notNull(),
  /** The plan that it was closed under, and the one whose rules hold for its charges since. */
  version: integer('version')
    .notNull()
    .references(() => allocationVersion.version),
  settledVersion: integer('settled_version')
    .notNull()
    .references(() => allocationVersion.version),
  /** The currency in which direct costs were compared, and the rates that were known. */
  reportCurrency: text('report_currency'),
  rates: jsonb('rates').$type<Rate[]>().notNull(),
  /** What was known beside the charges, as a hash: aliases, account tree, lookups. */
  beside: text('beside').notNull(),
  trees: jsonb('trees').$type<ClosedTree[]>().notNull(),
  who: text('who').notNull(),
  closedAt: timestamp('closed_at', { withTimezone: true, mode: 'string' }).notNull().defaultNow(),
})

/** The charges that a closed month refers to: they are kept whatever is loaded since. */
export const closedMonthLoad = pgTable(
  'closed_month_load',
  {
    month: text('month')
      .notNull()
      .references(() => closedMonth.month),
    source: text('source').notNull(),
    start: timestamp('start', { withTimezone: true, mode: 'string' }).notNull(),
    loadId: integer('load_id').notNull(),
  },
  table => [primaryKey({ columns: [table.month, table.source, table.start] })],
)
