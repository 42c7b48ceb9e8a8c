import { and, desc, eq, sql } from 'drizzle-orm'
import type { RateCard } from '../../core/ratecard/rate-card'
import type { RateCardEntry } from '../../shared/contracts/reference-data'
import type { Db } from '../db/client'
import { rateCard } from '../db/schema'

/** Keeps a card; one of the same provider and day is replaced. @returns whether one was. */
export async function saveRateCard(db: Db, card: RateCard, who: string): Promise<boolean> {
  return db.transaction(async (tx) => {
    const removed = await tx.delete(rateCard).where(and(eq(rateCard.provider, card.provider), eq(rateCard.validFrom, card.validFrom))).returning({ provider: rateCard.provider })
    await tx.insert(rateCard).values({ provider: card.provider, validFrom: card.validFrom, body: card, who })
    return removed.length > 0
  })
}

export async function listRateCards(db: Db): Promise<RateCardEntry[]> {
  const rows = await db.select().from(rateCard).orderBy(rateCard.provider, desc(rateCard.validFrom))
  return rows.map(({ provider, validFrom, body, who, loadedAt }) => ({ provider, currency: body.currency, validFrom, prices: body.prices.length, regions: body.regions.length, who, loadedAt }))
}

/** The card of a provider that holds on a day, the newest when no day is given. */
export async function findRateCard(db: Db, provider: string, day?: string): Promise<RateCard | null> {
  const holds = day ? and(eq(rateCard.provider, provider), sql`${rateCard.validFrom} <= ${day}`) : eq(rateCard.provider, provider)
  const [row] = await db.select().from(rateCard).where(holds).orderBy(desc(rateCard.validFrom)).limit(1)
  return row?.body ?? null
}
