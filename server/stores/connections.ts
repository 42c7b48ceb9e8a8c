import { eq } from 'drizzle-orm'
import type { Db } from '../db/database'
import { connection } from '../db/schema'
import { named } from './names'

export type StoredConnection = typeof connection.$inferSelect

export async function listConnections(db: Db): Promise<StoredConnection[]> {
  return db.select(named(connection)).from(connection).orderBy(connection.name)
}

export async function findConnection(db: Db, name: string): Promise<StoredConnection | undefined> {
  return (await db.select().from(connection).where(eq(connection.name, name)))[0]
}

/** Keeps a connection; one of the same name is changed. */
export async function saveConnection(db: Db, made: Omit<StoredConnection, 'savedAt'>): Promise<void> {
  const savedAt = new Date().toISOString()
  await db
    .insert(connection)
    .values({ ...made, savedAt })
    .onConflictDoUpdate({ target: connection.name, set: { ...made, savedAt } })
}

export async function removeConnection(db: Db, name: string): Promise<boolean> {
  return (await db.delete(connection).where(eq(connection.name, name)).returning({ name: connection.name })).length > 0
}
