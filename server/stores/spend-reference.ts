import { eq } from 'drizzle-orm'
import { referenceBody, type ReferenceBody } from '../../shared/contracts/spend-settings'
import { alone } from '../db/alone'
import type { Db } from '../db/database'
import { named } from './names'
import { spendReference } from '../db/schema'

/** What people have said beside the charges: aliases, the account tree, inherited tags, words for SKUs. */
export async function readReference(db: Pick<Db, 'select'>): Promise<{ body: ReferenceBody; who: string | null; savedAt: string | null }> {
  const [row] = await db.select(named(spendReference)).from(spendReference).where(eq(spendReference.id, 1))
  return { body: referenceBody.parse(row?.body ?? {}), who: row?.who ?? null, savedAt: row?.savedAt ?? null }
}

/** Changes what people have said, one change after the other. @returns what `change` gives beside the new body. */
export async function changeReference<T>(
  db: Db,
  who: string,
  change: (known: ReferenceBody) => { body: ReferenceBody; result: T },
): Promise<T> {
  return alone(db, 'spend reference', async tx => {
    const { body, result } = change((await readReference(tx)).body)
    const savedAt = new Date().toISOString()
    await tx
      .insert(spendReference)
      .values({ id: 1, body, who, savedAt })
      .onConflictDoUpdate({ target: spendReference.id, set: { body, who, savedAt } })
    return result
  })
}
