import { eq } from 'drizzle-orm'
import { chargedFor, describeLine } from '../../core/ratecard/describe'
import type { SpendReference } from '../../core/spend/reference'
import { referenceBody, type ReferenceBody } from '../../shared/contracts/spend-settings'
import { alone } from '../db/alone'
import type { Db } from '../db/database'
import { spendReference } from '../db/schema'
import { findRateCard, listProviders } from './rate-cards'

/** What people have said beside the charges: aliases, the account tree, inherited tags, words for SKUs. */
export async function readReference(db: Pick<Db, 'select'>): Promise<{ body: ReferenceBody; who: string | null; savedAt: string | null }> {
  const [row] = await db.select().from(spendReference).where(eq(spendReference.id, 1))
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

export type SkuMeaning = { words: string; charged: 'existing' | 'use' }

/** What every SKU code means: own words first, then the newest rate cards. */
export async function skuMeanings(db: Db): Promise<Map<string, SkuMeaning>> {
  const found = new Map<string, SkuMeaning>()
  for (const provider of await listProviders(db)) {
    const card = await findRateCard(db, provider)
    for (const line of card?.prices ?? [])
      if (!found.has(line.sku)) found.set(line.sku, { words: describeLine(line, card!), charged: chargedFor(line) })
  }
  const { body } = await readReference(db)
  for (const [sku, { words, charged }] of Object.entries(body.skus))
    found.set(sku, { words, charged: charged ?? found.get(sku)?.charged ?? 'use' })
  return found
}

/** The same as dimensions need it. */
export async function readSpendReference(db: Db): Promise<SpendReference> {
  const { body } = await readReference(db)
  const charged = Object.fromEntries([...(await skuMeanings(db))].map(([sku, meaning]) => [sku, meaning.charged]))
  return { aliases: body.aliases, accounts: body.accounts, containerTags: body.containerTags, charged }
}
