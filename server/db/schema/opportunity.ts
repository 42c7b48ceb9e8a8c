import { integer, jsonb, numeric, pgTable, serial, text, timestamp } from 'drizzle-orm/pg-core'
import type { Opportunity } from '../../../core/opportunity/opportunity'
import type { ActionState, ActionStep, OpportunityState } from '../../../shared/contracts/savings'

/** What a detector found, as it was when it was last seen, and where it stands. */
export const opportunity = pgTable('opportunity', {
  id: text('id').primaryKey(),
  state: text('state').$type<OpportunityState>().notNull(),
  /** By which detector it was found, through which connection. */
  detector: text('detector').notNull(),
  connection: text('connection').notNull(),
  body: jsonb('body').$type<Opportunity>().notNull(),
  foundAt: timestamp('found_at', { withTimezone: true, mode: 'string' }).notNull().defaultNow(),
})

/** One approved action on the outside. Its key goes with every try, so that however often it is sent it acts once. */
export const action = pgTable('action', {
  id: serial('id').primaryKey(),
  opportunityId: text('opportunity_id')
    .notNull()
    .references(() => opportunity.id)
    .unique(),
  requestKey: text('request_key').notNull().unique(),
  state: text('state').$type<ActionState>().notNull(),
  approvedBy: text('approved_by').notNull(),
  approvedAt: timestamp('approved_at', { withTimezone: true, mode: 'string' }).notNull().defaultNow(),
  /** The outside's own time of the deed. */
  doneAt: timestamp('done_at', { withTimezone: true, mode: 'string' }),
  promisedMonthly: numeric('promised_monthly').notNull(),
  currency: text('currency').notNull(),
  tries: integer('tries').notNull().default(0),
  steps: jsonb('steps').$type<ActionStep[]>().notNull().default([]),
})
