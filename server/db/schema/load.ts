import { boolean, integer, jsonb, pgTable, serial, text, timestamp } from 'drizzle-orm/pg-core'
import type { DayRun } from '../../../core/time/day-runs'
import type { Conformance } from '../../../core/focus/conformance'
import type { Mapping } from '../../../core/focus/mapping/mapping'
import type { ImportChange, ImportError, ImportFile, ImportOverlap, ImportPeriod, ImportState } from '../../../shared/contracts/imports'

/** A billing period that does not count, and the load its charges are of. */
export type PutAway = { source: string; start: string; end: string; loadId: number }

/** What a load has of a billing period: its billing accounts with their sub accounts, by ids of entries, and the days charges start on. */
export type Held = { accounts: [billingAccount: number, subAccount: number][]; days: DayRun[] }
/** What says when a delivery was made; times of different kinds are not compared. */
export type DeliveredBy = 'stated' | 'connection' | 'file' | 'arrival'

/** One delivery of a source, from its arrival to what became of it. */
export const load = pgTable('load', {
  id: serial('id').primaryKey(),
  source: text('source').notNull(),
  state: text('state').$type<ImportState>().notNull(),
  who: text('who').notNull(),
  startedAt: timestamp('started_at', { withTimezone: true, mode: 'string' }).notNull().defaultNow(),
  finishedAt: timestamp('finished_at', { withTimezone: true, mode: 'string' }),
  files: jsonb('files').$type<ImportFile[]>().notNull(),
  rows: integer('rows').notNull().default(0),
  periods: jsonb('periods').$type<ImportPeriod[]>().notNull().default([]),
  changes: jsonb('changes').$type<ImportChange[]>().notNull().default([]),
  warnings: jsonb('warnings').$type<string[]>().notNull().default([]),
  errorCount: integer('error_count').notNull().default(0),
  errors: jsonb('errors').$type<ImportError[]>().notNull().default([]),
  conformance: jsonb('conformance').$type<Conformance>(),
  /** Other sources that have delivered the same billing account and period: one has to be chosen before this is loaded. */
  overlaps: jsonb('overlaps').$type<ImportOverlap[]>().notNull().default([]),
  /** Billing periods of other sources that this load was chosen instead of: they count again when it is undone. */
  putAway: jsonb('put_away').$type<PutAway[]>().notNull().default([]),
  /** End of each billing period of the delivery, by its start. */
  periodEnds: jsonb('period_ends').$type<Record<string, string>>().notNull().default({}),
  corrections: jsonb('corrections').$type<ImportPeriod[]>().notNull().default([]),
  /** The mapping the files were read with; null for FOCUS. */
  mapping: jsonb('mapping').$type<Mapping>(),
  /** The data folder in whose inbox its files lie until it has ended; null once they are gone. */
  place: text('place'),
  /** Whether all its files have arrived: until then it is not read. */
  arrived: boolean('arrived').notNull().default(true),
  /** The key of the job that fetched it: taken up again, the job finds what it has fetched. */
  fetchKey: text('fetch_key').unique(),
  /** When what it holds was put together, as far as anyone said; until when its usage can be complete. */
  deliveredAt: timestamp('delivered_at', { withTimezone: true, mode: 'string' }),
  deliveredBy: text('delivered_by').$type<DeliveredBy>().notNull().default('arrival'),
  /** What it has of each billing period, by its start; empty for what was loaded before this was kept. */
  held: jsonb('held').$type<Record<string, Held>>().notNull().default({}),
  /** The state of the charges from which on they are as this load has left them. */
  revision: integer('revision').notNull().default(0),
  /** Why it ended, where neither an error list nor success says it. */
  message: text('message'),
})

/** Counts every change of the loaded charges; an answer says which it saw. */
export const dataRevision = pgTable('data_revision', { id: integer('id').primaryKey(), revision: integer('revision').notNull() })

/** How a source's files become charges, where they are not FOCUS. */
export const sourceMapping = pgTable('source_mapping', {
  source: text('source').primaryKey(),
  body: jsonb('body').$type<Mapping>().notNull(),
  who: text('who').notNull(),
  savedAt: timestamp('saved_at', { withTimezone: true, mode: 'string' }).notNull().defaultNow(),
})

/** A folder that is looked into, or a connection that is asked, for new deliveries of a source. When, its job says. */
export const sourceWatch = pgTable('source_watch', {
  id: serial('id').primaryKey(),
  source: text('source').notNull(),
  kind: text('kind').$type<'folder' | 'connection'>().notNull(),
  /** The folder's path, or the connection's name. */
  place: text('place').notNull(),
  /** Whether each file of a folder is a delivery of its own, or all files of a folder together are one. */
  together: text('together').$type<'file' | 'folder'>().notNull().default('file'),
  who: text('who').notNull(),
})
