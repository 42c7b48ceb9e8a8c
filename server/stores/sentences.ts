import { eq } from 'drizzle-orm'
import type { SavedSentence, SavedSentenceInput } from '../../shared/contracts/spend-settings'
import type { Db } from '../db/client'
import { savedSentence } from '../db/schema'
import { Problem, notFound } from '../http/problem'

export type StoredSentence = typeof savedSentence.$inferSelect

/** The sentences a person may see: shared ones and the own. */
export async function listSentences(db: Db, who: string): Promise<SavedSentence[]> {
  const rows = await db.select().from(savedSentence)
  return rows
    .filter(row => row.shared || row.owner === who)
    .sort((a, b) => (a.folder === b.folder ? a.name.localeCompare(b.name) : a.folder.localeCompare(b.folder)))
}

/** Keeps a sentence under an id. Only its owner changes it. */
export async function saveSentence(db: Db, id: string, input: SavedSentenceInput, who: string): Promise<void> {
  await own(db, id, who)
  const savedAt = new Date().toISOString()
  await db
    .insert(savedSentence)
    .values({ id, ...input, owner: who, savedAt })
    .onConflictDoUpdate({ target: savedSentence.id, set: { ...input, savedAt } })
}

export async function removeSentence(db: Db, id: string, who: string): Promise<void> {
  if (!(await own(db, id, who))) throw notFound('saved sentence', 'It may have been taken out already.')
  await db.delete(savedSentence).where(eq(savedSentence.id, id))
}

async function own(db: Db, id: string, who: string) {
  const [row] = await db.select().from(savedSentence).where(eq(savedSentence.id, id))
  if (row && row.owner !== who)
    throw new Problem(403, 'not-yours', 'The sentence is not yours', `It belongs to ${row.owner}. Keep your own under another name.`)
  return row
}

export async function findSentence(db: Db, id: string) {
  const [row] = await db.select().from(savedSentence).where(eq(savedSentence.id, id))
  return row
}

/** All sentences that are sent by a schedule. */
export async function scheduledSentences(db: Db) {
  return (await db.select().from(savedSentence)).filter(row => row.schedule !== null)
}

/** Notes that a sentence was sent, or that sending was tried in vain, and what is to say of it. */
export async function noteSent(db: Db, id: string, said: string, sent: boolean): Promise<void> {
  const now = new Date().toISOString()
  await db
    .update(savedSentence)
    .set({ lastSaid: said, lastTriedAt: now, ...(sent && { lastSentAt: now }) })
    .where(eq(savedSentence.id, id))
}
