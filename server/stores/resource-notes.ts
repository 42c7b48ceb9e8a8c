import { eq } from 'drizzle-orm'
import type { Db } from '../db/database'
import { resourceNote } from '../db/schema'
import { nameOf } from './names'

/** The note of a resource, with who wrote it; undefined where there is none. */
export async function findNote(db: Db, id: string): Promise<{ body: string; who: string; savedAt: string } | undefined> {
  const note = { body: resourceNote.body, who: nameOf(resourceNote.who), savedAt: resourceNote.savedAt }
  return (await db.select(note).from(resourceNote).where(eq(resourceNote.resourceId, id)))[0]
}

/** Keeps the note of a resource in place of the one before. */
export async function saveNote(db: Db, id: string, body: string, who: string): Promise<void> {
  const savedAt = new Date().toISOString()
  await db
    .insert(resourceNote)
    .values({ resourceId: id, body, who, savedAt })
    .onConflictDoUpdate({ target: resourceNote.resourceId, set: { body, who, savedAt } })
}
