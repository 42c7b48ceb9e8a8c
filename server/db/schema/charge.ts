import { char, customType, index, integer, numeric, pgTable, primaryKey, text, timestamp } from 'drizzle-orm/pg-core'
import { load } from './load'

const amount = (name: string) => numeric(name, { precision: 38, scale: 15 })
const bytes = customType<{ data: Uint8Array }>({ dataType: () => 'bytea' })
const instant = (name: string) => timestamp(name, { withTimezone: true, mode: 'string' })

/** One charge: exact amounts with keys into the dictionaries. Only charges of a load that a billing period points to count. */
export const charge = pgTable('charge', {
  loadId: integer('load_id').notNull(), // no reference: checking it would cost as much as the row itself
  billingPeriodStart: instant('billing_period_start').notNull(),
  chargePeriodStart: instant('charge_period_start').notNull(),
  chargePeriodEnd: instant('charge_period_end').notNull(),
  billingCurrency: char('billing_currency', { length: 3 }).notNull(),
  billingAccount: integer('billing_account').notNull(),
  subAccount: integer('sub_account').notNull(),
  resource: integer('resource').notNull(),
  sku: integer('sku').notNull(),
  price: integer('price').notNull(),
  commitment: integer('commitment').notNull(),
  chargeKind: integer('charge_kind').notNull(),
  tagSet: integer('tag_set').notNull(),
  others: integer('others').notNull(),
  billedCost: amount('billed_cost').notNull(),
  effectiveCost: amount('effective_cost').notNull(),
  listCost: amount('list_cost').notNull(),
  contractedCost: amount('contracted_cost').notNull(),
  pricingQuantity: amount('pricing_quantity'),
  consumedQuantity: amount('consumed_quantity'),
}, table => [index('charge_by_load').on(table.loadId, table.billingPeriodStart)])

/** A source's billing period and the load whose charges it has now. Pointing it to another load is what swaps a delivery in. */
export const billingPeriod = pgTable('billing_period', {
  source: text('source').notNull(),
  start: instant('start').notNull(),
  end: instant('end').notNull(),
  loadId: integer('load_id').notNull().references(() => load.id),
  revision: integer('revision').notNull(),
  /** The load whose charges were here before: they are kept, so that this one can be undone. */
  previousLoadId: integer('previous_load_id'),
}, table => [primaryKey({ columns: [table.source, table.start] })])

/**
 * The columns in memory of up to 65 536 charges, as bytes: derived from `charge`, written together with it and checked by a checksum
 * within, so that a start reads these instead of every charge.
 */
export const chargeSegment = pgTable('charge_segment', {
  loadId: integer('load_id').notNull(),
  billingPeriodStart: instant('billing_period_start').notNull(),
  number: integer('number').notNull(),
  rows: integer('rows').notNull(),
  bytes: bytes('bytes').notNull(),
}, table => [index('segment_by_load').on(table.loadId, table.billingPeriodStart)])
