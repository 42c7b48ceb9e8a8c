import { index, integer, jsonb, numeric, pgTable, primaryKey, serial, text, timestamp } from 'drizzle-orm/pg-core'
import type { Adjustment } from '../../../core/allocation/closing/adjustments'
import type { AllocationPlan } from '../../../core/allocation/plan'
import type { StatementPurpose } from '../../../core/allocation/statements/month-statements'
import type { Settlement } from '../../../core/allocation/settle'
import type { Rate } from '../../../core/money/rates'
import type { Lookup } from '../../../core/spend/lookup'
import type { CostMeasure } from '../../../core/spend/question'
import type { MeasureGrain } from '../../../core/unit-cost/business-measure'
import type { MailState } from '../../../shared/contracts/statement-mails'

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

/** A business measure; `tree` is null where it is of cost centres of the first. */
export const businessMeasure = pgTable('business_measure', {
  name: text('name').primaryKey(),
  unit: text('unit').notNull(),
  grain: text('grain').$type<MeasureGrain>().notNull(),
  tree: text('tree'),
  /** Counts what was saved of it. */
  version: integer('version').notNull(),
  who: text('who').notNull(),
  savedAt: timestamp('saved_at', { withTimezone: true, mode: 'string' }).notNull().defaultNow(),
})

/** What was counted of a measure for a cost centre, on a day or in a month. */
export const measureValue = pgTable(
  'measure_value',
  {
    measure: text('measure')
      .notNull()
      .references(() => businessMeasure.name, { onDelete: 'cascade' }),
    centre: text('centre').notNull(),
    date: text('date').notNull(),
    value: numeric('value').notNull(),
  },
  table => [primaryKey({ columns: [table.measure, table.centre, table.date] })],
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
  /** What its statements are for; nothing of months closed before that was asked. */
  purpose: text('purpose').$type<StatementPurpose>(),
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

/** What became of the statements of a closed month that were mailed to someone: they are sent once. */
export const statementMail = pgTable(
  'statement_mail',
  {
    month: text('month')
      .notNull()
      .references(() => closedMonth.month),
    person: text('person').notNull(),
    /** `sending` while it is sent, and where a process ended over it until that is found out. */
    state: text('state').$type<MailState>().notNull(),
    /** Where it went, and when that was; why it did not. */
    said: text('said').notNull(),
    at: timestamp('at', { withTimezone: true, mode: 'string' }).notNull().defaultNow(),
  },
  table => [primaryKey({ columns: [table.month, table.person] })],
)
