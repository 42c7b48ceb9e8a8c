import {
  bigint,
  boolean,
  date,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  serial,
  text,
  timestamp,
  unique,
  uuid,
} from 'drizzle-orm/pg-core'
import type { OrderDefinition } from '../../../core/standing-order/definition'
import type { ActionState, ActionStep } from '../../../shared/contracts/savings'
import type { RunCause, RunItem, RunState } from '../../../shared/contracts/standing-orders'

/** A run that a person asks for. */
export type AskedRun = { isDry: boolean; beyondBrake: boolean; who: string }

const when = (name: string) => timestamp(name, { withTimezone: true, mode: 'string' })

/** A rule that finds resources and acts on them. */
export const standingOrder = pgTable('standing_order', {
  id: uuid('id').primaryKey(),
  definition: jsonb('definition').$type<OrderDefinition>().notNull(),
  /** Counts up whenever what it finds or does changes: a dry run is of one revision. */
  revision: integer('revision').notNull().default(1),
  /** The newest revision of which there was a dry run. */
  triedRevision: integer('tried_revision'),
  isOn: boolean('is_on').notNull().default(false),
  /** What somebody has asked for and nothing has begun yet. */
  asked: jsonb('asked').$type<AskedRun>(),
  /** Up to which event, as they were told, it has dealt with. */
  toldTo: bigint('told_to', { mode: 'number' }).notNull().default(0),
  who: text('who').notNull(),
  changedAt: when('changed_at').notNull().defaultNow(),
})

/** A run of an order: what was found, done and failed, with the evidence. */
export const orderRun = pgTable(
  'order_run',
  {
    id: serial('id').primaryKey(),
    order: uuid('order_id')
      .notNull()
      .references(() => standingOrder.id, { onDelete: 'cascade' }),
    revision: integer('revision').notNull(),
    isDry: boolean('is_dry').notNull(),
    cause: text('cause').$type<RunCause>().notNull(),
    who: text('who').notNull(),
    beganAt: when('began_at').notNull().defaultNow(),
    endedAt: when('ended_at'),
    state: text('state').$type<RunState>().notNull(),
    said: text('said').notNull().default(''),
    items: jsonb('items').$type<RunItem[]>().notNull().default([]),
  },
  table => [index('order_run_of').on(table.order, table.id)],
)

/** Since when an order finds a resource. */
export const orderFinding = pgTable(
  'order_finding',
  {
    order: uuid('order_id')
      .notNull()
      .references(() => standingOrder.id, { onDelete: 'cascade' }),
    resourceId: text('resource_id').notNull(),
    since: date('since').notNull(),
  },
  table => [primaryKey({ columns: [table.order, table.resourceId] })],
)

/** One thing that an order does outside to one resource: its key goes with every try, so that however often it is sent it acts once. */
export const orderDeed = pgTable(
  'order_deed',
  {
    id: serial('id').primaryKey(),
    order: uuid('order_id')
      .notNull()
      .references(() => standingOrder.id, { onDelete: 'cascade' }),
    resourceId: text('resource_id').notNull(),
    /** In words: the same is never done twice. */
    what: text('what').notNull(),
    requestKey: text('request_key').notNull().unique(),
    state: text('state').$type<ActionState>().notNull(),
    tries: integer('tries').notNull().default(0),
    steps: jsonb('steps').$type<ActionStep[]>().notNull().default([]),
  },
  table => [unique('order_deed_once').on(table.order, table.resourceId, table.what)],
)

/** A resource that an order leaves alone, until a day or for good. */
export const orderException = pgTable(
  'order_exception',
  {
    order: uuid('order_id')
      .notNull()
      .references(() => standingOrder.id, { onDelete: 'cascade' }),
    resourceId: text('resource_id').notNull(),
    reason: text('reason').notNull(),
    until: date('until'),
    who: text('who').notNull(),
    at: when('at').notNull().defaultNow(),
  },
  table => [primaryKey({ columns: [table.order, table.resourceId] })],
)
