import { desc, sql } from 'drizzle-orm'
import type { Lookup } from '../../core/spend/lookup'
import { lookupDifference, lookupDifferenceWords } from '../../core/spend/lookup-difference'
import { alone } from '../db/alone'
import type { Db } from '../db/database'
import { named } from './names'
import { lookupVersion } from '../db/schema'
import { conflict } from '../problems/problem'

export type SavedLookup = { name: string; lookup: Lookup; version: number; who: string; savedAt: string }

/** The lookups that count, in the order of their names. */
export async function listLookups(db: Pick<Db, 'selectDistinctOn'>): Promise<SavedLookup[]> {
  const rows = await db
    .selectDistinctOn([lookupVersion.name], named(lookupVersion))
    .from(lookupVersion)
    .orderBy(lookupVersion.name, desc(lookupVersion.version))
  return rows.flatMap(({ name, body, version, who, savedAt }) => (body ? [{ name, lookup: body, version, who, savedAt }] : []))
}

/** The newest state of a lookup; null where there is none, or it was taken away. */
export async function findLookup(db: Pick<Db, 'select'>, name: string): Promise<SavedLookup | null> {
  const [row] = await db
    .select(named(lookupVersion))
    .from(lookupVersion)
    .where(sql`${lookupVersion.name} = ${name}`)
    .orderBy(desc(lookupVersion.version))
    .limit(1)
  return row?.body ? { name, lookup: row.body, version: row.version, who: row.who, savedAt: row.savedAt } : null
}

/**
 * Saves a lookup as its next state; null takes it away. What was before stays.
 * @param basedOn the version that it was held against; a lookup that is there is not overwritten unseen.
 * @throws Problem with the difference where that is not the newest.
 */
export async function saveLookup(db: Db, name: string, body: Lookup, basedOn: number | undefined, who: string): Promise<void> {
  await alone(db, `lookup ${name}`, async tx => {
    const newest = await findLookup(tx, name)
    if (newest && newest.version !== basedOn) {
      const difference = lookupDifferenceWords(lookupDifference(newest.lookup, body))
      throw conflict(
        `There is a lookup «${name}» already`,
        `Its version ${newest.version} was saved by ${newest.who}. Beside it this one means: ${difference}. Nothing was taken; to take it all the same, send it with basedOn ${newest.version}.`,
      )
    }
    await putLookup(tx, name, body, who)
  })
}

/** Saves a lookup as its next state, whatever the one before says; null takes it away. */
export async function putLookup(db: Pick<Db, 'insert'>, name: string, body: Lookup | null, who: string): Promise<void> {
  await db.insert(lookupVersion).values({ name, body, who })
}
