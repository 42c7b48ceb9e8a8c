import { customType, index, integer, pgTable, primaryKey, text, timestamp } from 'drizzle-orm/pg-core'
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
    /** The load whose charges were here before: they are kept, so that this one can be undone. */
    previousLoadId: integer('previous_load_id'),
  },
  table => [primaryKey({ columns: [table.source, table.start] })],
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
