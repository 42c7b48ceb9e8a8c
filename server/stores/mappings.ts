import { eq } from 'drizzle-orm'
import type { Mapping } from '../../core/focus/mapping/mapping'
import type { Db } from '../db/database'
import { sourceMapping } from '../db/schema'

/** How a source's files become charges; null where none is kept. */
export async function findMapping(db: Db, source: string): Promise<Mapping | null> {
  const [row] = await db.select().from(sourceMapping).where(eq(sourceMapping.source, source))
  return row?.body ?? null
}

/** Sources that have a mapping. */
export async function listMapped(db: Db): Promise<string[]> {
  return (await db.select({ source: sourceMapping.source }).from(sourceMapping).orderBy(sourceMapping.source)).map(row => row.source)
}

export async function saveMapping(db: Db, source: string, body: Mapping, who: string): Promise<void> {
  const savedAt = new Date().toISOString()
  await db
    .insert(sourceMapping)
    .values({ source, body, who, savedAt })
    .onConflictDoUpdate({ target: sourceMapping.source, set: { body, who, savedAt } })
}

export async function removeMapping(db: Db, source: string): Promise<boolean> {
  return (await db.delete(sourceMapping).where(eq(sourceMapping.source, source)).returning({ source: sourceMapping.source })).length > 0
}
