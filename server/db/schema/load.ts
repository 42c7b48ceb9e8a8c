import { integer, jsonb, pgTable, serial, text, timestamp } from 'drizzle-orm/pg-core'
import type { ImportChange, ImportError, ImportFile, ImportPeriod, ImportState } from '../../../shared/contracts/imports'

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
  /** Why it ended, where neither an error list nor success says it. */
  message: text('message'),
})

/** Counts every change of the loaded charges; an answer says which it saw. */
export const dataRevision = pgTable('data_revision', {
  id: integer('id').primaryKey(),
  revision: integer('revision').notNull(),
})
