import { pgTable, text, timestamp } from 'drizzle-orm/pg-core'

/** An outside service that is asked and acted on: how to reach it. What it can do, its kind of connector says. */
export const connection = pgTable('connection', {
  name: text('name').primaryKey(),
  /** A kind of `server/connectors/kinds`. */
  kind: text('kind').notNull(),
  /** Whose charges, prices and resources it is about, as charges name it. */
  provider: text('provider').notNull(),
  address: text('address').notNull(),
  /** Where its secret is found, such as `env:CLOUD_TOKEN` or `file:/run/secrets/cloud`: never the secret itself. */
  secret: text('secret'),
  who: text('who').notNull(),
  savedAt: timestamp('saved_at', { withTimezone: true, mode: 'string' }).notNull().defaultNow(),
})
