import { eq } from 'drizzle-orm'
import { patternSchema, type Pattern } from '../../core/estimate/pattern'
import type { StoredUplift, UpliftSet } from '../../core/uplift/uplift-set'
import type { Db } from '../db/database'
import { named } from './names'
import { pattern, upliftSet } from '../db/schema'

/** The organisation's uplifts with who set them. */
export async function listUplifts(db: Db): Promise<StoredUplift[]> {
  const rows = await db.select(named(upliftSet)).from(upliftSet).orderBy(upliftSet.id)
  return rows.map(({ body, who, setAt }) => ({ ...body, who, setAt }))
}

export async function saveUplift(db: Db, body: UpliftSet, who: string): Promise<void> {
  const setAt = new Date().toISOString()
  await db
    .insert(upliftSet)
    .values({ id: body.id, body, who, setAt })
    .onConflictDoUpdate({ target: upliftSet.id, set: { body, who, setAt } })
}

export async function removeUplift(db: Db, id: string): Promise<boolean> {
  return (await db.delete(upliftSet).where(eq(upliftSet.id, id)).returning({ id: upliftSet.id })).length > 0
}

export async function listPatterns(db: Db) {
  const rows = await db.select(named(pattern)).from(pattern).orderBy(pattern.id)
  return rows.map(({ body, who, savedAt }) => ({ pattern: patternSchema.safeParse(body).data ?? body, who, savedAt }))
}

export async function savePattern(db: Db, body: Pattern, who: string): Promise<void> {
  const savedAt = new Date().toISOString()
  await db
    .insert(pattern)
    .values({ id: body.id, body, who, savedAt })
    .onConflictDoUpdate({ target: pattern.id, set: { body, who, savedAt } })
}

export async function removePattern(db: Db, id: string): Promise<boolean> {
  return (await db.delete(pattern).where(eq(pattern.id, id)).returning({ id: pattern.id })).length > 0
}
