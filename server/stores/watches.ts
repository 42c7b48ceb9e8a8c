import { eq } from 'drizzle-orm'
import type { Db } from '../db/database'
import { named } from './names'
import { sourceWatch } from '../db/schema'

export type StoredWatch = typeof sourceWatch.$inferSelect

/** Folders and connections that are looked at for new deliveries. */
export async function listWatches(db: Db): Promise<StoredWatch[]> {
  return db.select(named(sourceWatch)).from(sourceWatch).orderBy(sourceWatch.id)
}

export async function findWatch(db: Db, id: number): Promise<StoredWatch | undefined> {
  return (await db.select(named(sourceWatch)).from(sourceWatch).where(eq(sourceWatch.id, id)))[0]
}

export async function addWatch(
  db: Pick<Db, 'insert'>,
  watch: Pick<StoredWatch, 'source' | 'kind' | 'place' | 'together'>,
  who: string,
): Promise<StoredWatch> {
  const [row] = await db
    .insert(sourceWatch)
    .values({ ...watch, who })
    .returning()
  return row!
}

export async function removeWatch(db: Pick<Db, 'delete'>, id: number): Promise<boolean> {
  return (await db.delete(sourceWatch).where(eq(sourceWatch.id, id)).returning({ id: sourceWatch.id })).length > 0
}
