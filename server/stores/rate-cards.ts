import { and, desc, eq, sql } from 'drizzle-orm'
import type { RateCard } from '../../core/ratecard/rate-card'
import type { RateCardEntry } from '../../shared/contracts/reference-data'
import type { Db } from '../db/client'
import { cardSchedule, rateCard } from '../db/schema'

/** Keeps a card; one of the same provider and day is replaced. @returns whether one was, and whether it differed. */
export async function saveRateCard(db: Db, card: RateCard, who: string): Promise<{ replaced: boolean, changed: boolean }> {
  return db.transaction(async (tx) => {
    const removed = await tx.delete(rateCard).where(and(eq(rateCard.provider, card.provider), eq(rateCard.validFrom, card.validFrom))).returning({ body: rateCard.body })
    await tx.insert(rateCard).values({ provider: card.provider, validFrom: card.validFrom, body: card, who })
    return { replaced: removed.length > 0, changed: !removed.some(({ body }) => sameJson(body, card)) }
  })
}

/** Whether two values are the same however the database has ordered their keys. */
function sameJson(a: unknown, b: unknown): boolean {
  const sorted = (value: unknown): unknown => Array.isArray(value) ? value.map(sorted) : typeof value === 'object' && value !== null ? Object.entries(value).sort(([x], [y]) => x < y ? -1 : 1).map(([key, v]) => [key, sorted(v)]) : value
  return JSON.stringify(sorted(a)) === JSON.stringify(sorted(b))
}

export async function listRateCards(db: Db): Promise<RateCardEntry[]> {
  const rows = await db.select().from(rateCard).orderBy(rateCard.provider, desc(rateCard.validFrom))
  return rows.map(({ provider, validFrom, body, who, loadedAt }) => ({ provider, currency: body.currency, validFrom, prices: body.prices.length, regions: body.regions.map(r => r.id), who, loadedAt }))
}

export async function listProviders(db: Db): Promise<string[]> {
  return (await db.selectDistinct({ provider: rateCard.provider }).from(rateCard).orderBy(rateCard.provider)).map(row => row.provider)
}

/** The card of a provider that holds on a day, the newest when no day is given. */
export async function findRateCard(db: Db, provider: string, day?: string): Promise<RateCard | null> {
  const holds = day ? and(eq(rateCard.provider, provider), sql`${rateCard.validFrom} <= ${day}`) : eq(rateCard.provider, provider)
  const [row] = await db.select().from(rateCard).where(holds).orderBy(desc(rateCard.validFrom)).limit(1)
  return row?.body ?? null
}

export function listSchedules(db: Db) {
  return db.select().from(cardSchedule)
}

/** How often a connection is asked for its card; zero for never by itself. */
export async function setSchedule(db: Db, connection: string, everyHours: number): Promise<void> {
  await db.insert(cardSchedule).values({ connection, everyHours }).onConflictDoUpdate({ target: cardSchedule.connection, set: { everyHours } })
}

export async function noteAsked(db: Db, connection: string, lastSaid: string): Promise<void> {
  const lastAskedAt = new Date().toISOString()
  await db.insert(cardSchedule).values({ connection, everyHours: 0, lastAskedAt, lastSaid }).onConflictDoUpdate({ target: cardSchedule.connection, set: { lastAskedAt, lastSaid } })
}
