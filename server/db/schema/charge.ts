import { customType, index, integer, jsonb, pgTable, primaryKey, text, timestamp } from 'drizzle-orm/pg-core'
import { load } from './load'

const bytes = customType<{ data: Uint8Array }>({ dataType: () => 'bytea' })
const instant = (name: string) => timestamp(name, { withTimezone: true, mode: 'string' })

/** A source's billing period and the load whose charges it has now. Pointing it to another load is what swaps a delivery in. */
export const billingPeriod = pgTable(
  'billing_period',
  {
    source: text('source').notNull(),
    start: instant('start').notNull(),
    end: instant('end').notNull(),
    loadId: integer('load_id')
      .notNull()
      .references(() => load.id),
    revision: integer('revision').notNull(),
    /** The load whose charges were here before, for what moved between the two. */
    previousLoadId: integer('previous_load_id'),
  },
  table => [primaryKey({ columns: [table.source, table.start] })],
)

/**
 * Which loads a source's billing period has had: those before what counts now, the latest last, and those that were taken back, the next to
 * come forth last; null where nothing counted. Their charges are kept, so that one can step back and forth.
 */
export const periodHistory = pgTable(
  'period_history',
  {
    source: text('source').notNull(),
    start: instant('start').notNull(),
    end: instant('end').notNull(),
    older: jsonb('older').$type<(number | null)[]>().notNull().default([]),
    newer: jsonb('newer').$type<(number | null)[]>().notNull().default([]),
  },
  table => [primaryKey({ columns: [table.source, table.start] })],
)

/** Two sources of which someone has said that both count, as long as they deliver different sub accounts. */
export const sideBySide = pgTable(
  'side_by_side',
  { source: text('source').notNull(), other: text('other').notNull(), who: text('who').notNull() },
  table => [primaryKey({ columns: [table.source, table.other] })],
)

/**
 * Charges: up to 65 536 of one load and billing period as columns of amounts and dictionary keys, in the bytes of
 * `server/charges/segment-codec.ts`, whose checksum shows any damage. Only those of a load that a billing period points to count.
 */
export const chargeSegment = pgTable(
  'charge_segment',
  {
    loadId: integer('load_id').notNull(),
    billingPeriodStart: instant('billing_period_start').notNull(),
    number: integer('number').notNull(),
    rows: integer('rows').notNull(),
    bytes: bytes('bytes').notNull(),
  },
  table => [index('segment_by_load').on(table.loadId, table.billingPeriodStart)],
)
