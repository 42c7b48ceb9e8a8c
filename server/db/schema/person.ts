import { boolean, jsonb, pgTable, text } from 'drizzle-orm/pg-core'

/** Someone who works with Rain Barrel or owns a cost centre. */
export const person = pgTable('person', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  role: text('role').notNull(),
  /** Where mail reaches them. */
  mail: text('mail'),
  /** The cost centres of the first tree that they see with all below them; null for all there is. */
  bound: jsonb('bound').$type<string[]>(),
  /** Whether, within a bound, they see what pools are and how they are measured. */
  seesPools: boolean('sees_pools').notNull().default(false),
})
