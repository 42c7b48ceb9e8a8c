import { pgTable, text } from 'drizzle-orm/pg-core'

/** Someone who works with Rain Barrel or owns a cost centre. */
export const person = pgTable('person', { id: text('id').primaryKey(), name: text('name').notNull(), role: text('role').notNull() })
