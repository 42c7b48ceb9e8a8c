import { sql } from 'drizzle-orm'
import type { Db, Tx } from './database'

/**
 * Does a work in a transaction, after any other on the same thing has ended, in whatever process: what it reads still holds when it writes.
 * @param thing such as `estimate 4711`.
 */
export function alone<T>(db: Pick<Db, 'transaction'>, thing: string, work: (tx: Tx) => Promise<T>): Promise<T> {
  return db.transaction(async tx => {
    await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${thing}, 0))`)
    return work(tx)
  })
}
