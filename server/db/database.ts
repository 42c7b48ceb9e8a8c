import type { PgDatabase, PgQueryResultHKT } from 'drizzle-orm/pg-core'
import type * as schema from './schema'

/** What a statement written by hand replies, whichever database answers. */
interface Replied extends PgQueryResultHKT {
  type: Rows<this['row']>
}
type Rows<Row> = { rows: Row[] }

/** Statements of the schema, on either database. */
export type Db = PgDatabase<Replied, typeof schema>
/** The same statements inside a transaction. */
export type Tx = Parameters<Parameters<Db['transaction']>[0]>[0]

/**
 * Statements by their text, and copies in and out. Rows are arrays; times and days stay text, whole numbers beyond 32 bits and numerics
 * come
 * as text from a server: cast what is to be counted.
 */
export interface Session {
  query(sql: string, params?: unknown[]): Promise<unknown[][]>
  /** `copyIn('load', 'format csv', bytes)` puts the rows of a COPY into a table. */
  copyIn(table: string, options: string, bytes: Uint8Array): Promise<void>
  /** `copyOut('select …', 'format binary')` gives the bytes of a COPY. */
  copyOut(query: string, options: string): Promise<Uint8Array>
}

/** Where everything is kept: the port that two databases implement, one embedded in a data folder and a PostgreSQL server. */
export interface Database extends Session {
  readonly kind: 'embedded' | 'server'
  readonly db: Db
  /** Everything of the work or nothing of it; `read` sees one state of everything and writes nothing. */
  transaction<T>(work: (session: Session) => Promise<T>, mode?: 'write' | 'read'): Promise<T>
  /** Hears what `notify` tells on a channel, here and in other processes. @returns how to stop. */
  listen(channel: Channel, heard: (payload: string) => void): Promise<() => Promise<void>>
  notify(channel: Channel, payload: string): Promise<void>
  close(): Promise<void>
}

/**
 * What processes on one database tell each other: that other charges count, that what is known beside them changed, that a job is to be
 * looked at.
 */
export type Channel = 'charges' | 'reference' | 'measured' | 'jobs' | 'people' | 'measured'

/** The channel's name in the database, which others may share. */
export const channelName = (channel: Channel): string => `rain_barrel_${channel}`
