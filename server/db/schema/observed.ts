import { bigserial, customType, date, index, integer, jsonb, pgTable, primaryKey, text, timestamp } from 'drizzle-orm/pg-core'
import type { Resource } from '../../../core/opportunity/opportunity'

const bytes = customType<{ data: Uint8Array }>({ dataType: () => 'bytea' })
const when = (name: string) => timestamp(name, { withTimezone: true, mode: 'string' })

/** What a connection listed of a type on a day, as it was when it was last asked that day. */
export const inventoryDay = pgTable(
  'inventory_day',
  {
    connection: text('connection').notNull(),
    type: text('type').notNull(),
    day: date('day').notNull(),
    resources: jsonb('resources').$type<Resource[]>().notNull(),
  },
  table => [primaryKey({ columns: [table.connection, table.type, table.day] })],
)

/**
 * What was measured on a day: 24 hours of each resource in one block, in the bytes of `server/observed/measured-block.ts`, whose checksum
 * shows any damage.
 */
export const measuredBlock = pgTable(
  'measured_block',
  {
    connection: text('connection').notNull(),
    type: text('type').notNull(),
    metric: text('metric').notNull(),
    day: date('day').notNull(),
    /** In the order of the block. */
    resources: jsonb('resources').$type<string[]>().notNull(),
    bytes: bytes('bytes').notNull(),
  },
  table => [primaryKey({ columns: [table.connection, table.type, table.metric, table.day] })],
)

/**
 * The days of a month of the same in few figures of each resource, kept longer than the hours: in parts that resources are spread over,
 * each in the bytes of `server/observed/figures-block.ts`.
 */
export const measuredFigures = pgTable(
  'measured_figures',
  {
    connection: text('connection').notNull(),
    type: text('type').notNull(),
    metric: text('metric').notNull(),
    month: text('month').notNull(),
    part: integer('part').notNull(),
    resources: jsonb('resources').$type<string[]>().notNull(),
    bytes: bytes('bytes').notNull(),
  },
  table => [primaryKey({ columns: [table.connection, table.type, table.metric, table.month, table.part] })],
)

/** What has happened to resources, as a connection tells it. */
export const outsideEvent = pgTable(
  'outside_event',
  {
    connection: text('connection').notNull(),
    id: text('id').notNull(),
    at: when('at').notNull(),
    resourceId: text('resource_id').notNull(),
    what: text('what').notNull(),
    by: text('by').notNull(),
    /** The record as the service keeps it, where it tells it. */
    raw: text('raw'),
    /** In the order in which they were told: one that is told late comes after those that happened later. */
    told: bigserial('told', { mode: 'number' }).notNull(),
  },
  table => [primaryKey({ columns: [table.connection, table.id] }), index('outside_event_told').on(table.told)],
)
