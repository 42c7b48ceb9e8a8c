import { desc, sql } from 'drizzle-orm'
import type { Lookup } from '../../core/spend/lookup'
import type { Db } from '../db/database'
import { named } from './names'
import { lookupVersion } from '../db/schema'

export type SavedLookup = { name: string; lookup: Lookup; who: string; savedAt: string }

/** The lookups that count, in the order of their names. */
export async function listLookups(db: Pick<Db, 'selectDistinctOn'>): Promise<SavedLookup[]> {
  const rows = await db
    .selectDistinctOn([lookupVersion.name], named(lookupVersion))
    .from(lookupVersion)
    .orderBy(lookupVersion.name, desc(lookupVersion.version))
  return rows.flatMap(({ name, body, who, savedAt }) => (body ? [{ name, lookup: body, who, savedAt }] : []))
}

/** The newest state of a lookup; null where there is none, or it was taken away. */
export async function findLookup(db: Pick<Db, 'select'>, name: string): Promise<SavedLookup | null> {
  const [row] = await db
    .select(named(lookupVersion))
    .from(lookupVersion)
    .where(sql`${lookupVersion.name} = ${name}`)
    .orderBy(desc(lookupVersion.version))
    .limit(1)
  return row?.body ? { name, lookup: row.body, who: row.who, savedAt: row.savedAt } : null
}

/** Saves a lookup as its next state; null takes it away. What was before stays. */
export async function saveLookup(db: Pick<Db, 'insert'>, name: string, body: Lookup | null, who: string): Promise<void> {
  await db.insert(lookupVersion).values({ name, body, who })
}
