import { date, integer, jsonb, numeric, pgTable, primaryKey, serial, text, timestamp, uuid } from 'drizzle-orm/pg-core'
import type { Opportunity } from '../../../core/opportunity/opportunity'
import type { OwnRule } from '../../../core/opportunity/own/own-finds'
import type { ActionState, ActionStep, DecidedState, FoundState, OpportunityNote } from '../../../shared/contracts/savings'
import type { SavingsAnswer } from '../../../shared/contracts/savings-lists'
import type { MailState } from '../../../shared/contracts/statement-mails'

/** What a detector found, as it was when it was last seen, and where it stands. */
export const opportunity = pgTable('opportunity', {
  id: text('id').primaryKey(),
  state: text('state').$type<FoundState>().notNull(),
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
  /** Where undoing it stands, with a key of its own; null where nobody has asked for that. */
  undoing: jsonb('undoing').$type<Undoing>(),
})

/** How far an action is undone. */
export type Undoing = { requestKey: string; state: ActionState; tries: number; who: string }

/** What was done from here and undone again: what it had saved until then stays in the ledger. */
export const undoneAction = pgTable('undone_action', {
  id: serial('id').primaryKey(),
  opportunityId: text('opportunity_id').notNull(),
  body: jsonb('body').$type<Opportunity>().notNull(),
  approvedBy: text('approved_by').notNull(),
  doneAt: timestamp('done_at', { withTimezone: true, mode: 'string' }).notNull(),
  undoneAt: timestamp('undone_at', { withTimezone: true, mode: 'string' }).notNull(),
  undoneBy: text('undone_by').notNull(),
  promisedMonthly: numeric('promised_monthly').notNull(),
  currency: text('currency').notNull(),
  steps: jsonb('steps').$type<ActionStep[]>().notNull(),
})

/**
 * What people decided about an opportunity, wherever it was found: on what it was as they saw it, so that it can be spoken of when it is
 * found no more.
 */
export const savingsDecision = pgTable('savings_decision', {
  opportunityId: text('opportunity_id').primaryKey(),
  /** Null where nothing was decided: there are notes, or a day by which it is due. */
  state: text('state').$type<DecidedState>(),
  who: text('who').notNull(),
  at: timestamp('at', { withTimezone: true, mode: 'string' }).notNull().defaultNow(),
  reason: text('reason'),
  lookAgain: date('look_again'),
  due: date('due'),
  /** The first day on which it is done. */
  doneOn: date('done_on'),
  body: jsonb('body').$type<Opportunity>().notNull(),
  notes: jsonb('notes').$type<OpportunityNote[]>().notNull().default([]),
})

/** A figure by which a detector decides, set for the company (an empty sub account) or for one. */
export const savingsThreshold = pgTable(
  'savings_threshold',
  {
    detector: text('detector').notNull(),
    key: text('key').notNull(),
    subAccount: text('sub_account').notNull(),
    value: numeric('value').notNull(),
    who: text('who').notNull(),
    at: timestamp('at', { withTimezone: true, mode: 'string' }).notNull().defaultNow(),
  },
  table => [primaryKey({ columns: [table.detector, table.key, table.subAccount] })],
)

/** What somebody chose that a resource should be charged as, of what it is charged for under a SKU: a way by its key. */
export const savingsChoice = pgTable(
  'savings_choice',
  {
    provider: text('provider').notNull(),
    resourceId: text('resource_id').notNull(),
    sku: text('sku').notNull(),
    way: text('way').notNull(),
    who: text('who').notNull(),
    at: timestamp('at', { withTimezone: true, mode: 'string' }).notNull().defaultNow(),
  },
  table => [primaryKey({ columns: [table.provider, table.resourceId, table.sku] })],
)

/** A rule of one's own that finds savings: a Sentence, and how much a resource has to cost in it. */
export const savingsRule = pgTable('savings_rule', {
  id: uuid('id').primaryKey(),
  definition: jsonb('definition').$type<Omit<OwnRule, 'id'>>().notNull(),
  who: text('who').notNull(),
  at: timestamp('at', { withTimezone: true, mode: 'string' }).notNull().defaultNow(),
})

/** How savings are acted on, by what it is about: above which monthly saving together a second person approves. */
export const savingsSetting = pgTable('savings_setting', {
  key: text('key').$type<'second person above'>().primaryKey(),
  value: numeric('value').notNull(),
  who: text('who').notNull(),
  at: timestamp('at', { withTimezone: true, mode: 'string' }).notNull().defaultNow(),
})

/** A list that was handed to an owner: what it said of each opportunity then, and what came of its mail. */
export const savingsList = pgTable('savings_list', {
  id: uuid('id').primaryKey(),
  /** A person of the register. */
  person: text('person').notNull(),
  message: text('message'),
  /** The opportunities as they stood then. */
  bodies: jsonb('bodies').$type<Opportunity[]>().notNull(),
  who: text('who').notNull(),
  madeAt: timestamp('made_at', { withTimezone: true, mode: 'string' }).notNull().defaultNow(),
  expiresOn: date('expires_on').notNull(),
  revokedAt: timestamp('revoked_at', { withTimezone: true, mode: 'string' }),
  mailState: text('mail_state').$type<MailState>(),
  mailSaid: text('mail_said'),
})

/** What opens a list: hashes of secrets that are kept nowhere. */
export const savingsListLink = pgTable('savings_list_link', {
  secretHash: text('secret_hash').primaryKey(),
  list: uuid('list')
    .notNull()
    .references(() => savingsList.id, { onDelete: 'cascade' }),
})

/** What an owner answered to an opportunity of a list; the last answer counts. */
export const savingsAnswer = pgTable(
  'savings_answer',
  {
    list: uuid('list')
      .notNull()
      .references(() => savingsList.id, { onDelete: 'cascade' }),
    opportunityId: text('opportunity_id').notNull(),
    answer: text('answer').$type<SavingsAnswer>().notNull(),
    reason: text('reason'),
    at: timestamp('at', { withTimezone: true, mode: 'string' }).notNull().defaultNow(),
  },
  table => [primaryKey({ columns: [table.list, table.opportunityId] })],
)
