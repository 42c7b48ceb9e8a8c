import { and, desc, eq, sql } from 'drizzle-orm'
import { earlierCard, type RateCard } from '../../core/ratecard/rate-card'
import type { RateCardEntry } from '../../shared/contracts/reference-data'
import { alone } from '../db/alone'
import type { Db } from '../db/database'
import { rateCard } from '../db/schema'

/** A card of the database; ways to pay may still be called as cards called them first. */
const cardOf = (body: unknown): RateCard => earlierCard(body) as RateCard

/**
 * Keeps a card. One of a provider and day that is there already and differs becomes a further revision of that day; one that says the same
 * is not kept again.
 * @returns whether there was one of that day, whether it differed, and the revision that holds now.
 */
export async function saveRateCard(
  db: Db,
  card: RateCard,
  who: string,
): Promise<{ replaced: boolean; changed: boolean; revision: number }> {
  return alone(db, `rate card ${card.provider}`, async tx => {
    const [newest] = await tx
      .select()
      .from(rateCard)
      .where(and(eq(rateCard.provider, card.provider), eq(rateCard.validFrom, card.validFrom)))
      .orderBy(desc(rateCard.revision))
      .limit(1)
    if (newest && sameJson(cardOf(newest.body), card)) return { replaced: true, changed: false, revision: newest.revision }
    const revision = (newest?.revision ?? 0) + 1
    await tx.insert(rateCard).values({ provider: card.provider, validFrom: card.validFrom, revision, body: card, who })
    return { replaced: newest !== undefined, changed: true, revision }
  })
}

/** Whether two values are the same however the database has ordered their keys. */
function sameJson(a: unknown, b: unknown): boolean {
  const sorted = (value: unknown): unknown =>
    Array.isArray(value)
      ? value.map(sorted)
      : typeof value === 'object' && value !== null
        ? Object.entries(value)
            .sort(([x], [y]) => (x < y ? -1 : 1))
            .map(([key, v]) => [key, sorted(v)])
        : value
  return JSON.stringify(sorted(a)) === JSON.stringify(sorted(b))
}

/** Every version of every card, by provider, the newest first; of one day the newest revision first. */
export async function listRateCards(db: Db): Promise<RateCardEntry[]> {
  const rows = await db.select().from(rateCard).orderBy(rateCard.provider, desc(rateCard.validFrom), desc(rateCard.revision))
  return rows.map(({ provider, validFrom, revision, body, who, loadedAt }) => ({
    provider,
    currency: body.currency,
    validFrom,
    revision,
    prices: body.prices.length,
    regions: body.regions.map(r => r.id),
    who,
    loadedAt,
  }))
}

export async function listProviders(db: Db): Promise<string[]> {
  return (await db.selectDistinct({ provider: rateCard.provider }).from(rateCard).orderBy(rateCard.provider)).map(row => row.provider)
}

/**
 * The card of a provider that holds on a day, the newest when no day is given; of one day its newest revision, or the one that is asked
 * for.
 */
export async function findRateCard(db: Db, provider: string, day?: string, revision?: number): Promise<RateCard | null> {
  const ofDay = day
    ? revision === undefined
      ? sql`${rateCard.validFrom} <= ${day}`
      : and(eq(rateCard.validFrom, day), eq(rateCard.revision, revision))
    : undefined
  const [row] = await db
    .select()
    .from(rateCard)
    .where(and(eq(rateCard.provider, provider), ofDay))
    .orderBy(desc(rateCard.validFrom), desc(rateCard.revision))
    .limit(1)
  return row ? cardOf(row.body) : null
}
