import { and, desc, eq, gt, lte, sql, type SQL } from 'drizzle-orm'
import { earlierCard, type RateCard } from '../../core/ratecard/rate-card'
import type { Day } from '../../core/time/day'
import type { RateCardEntry } from '../../shared/contracts/reference-data'
import { alone } from '../db/alone'
import type { Db, Tx } from '../db/database'
import { rateCard } from '../db/schema'
import { named } from './names'

/** A card as it is kept: its JSON as text, made where the card was read. */
export type PackedCard = { provider: string; currency: string; validFrom: string; prices: number; text: string }

export const packedCard = (card: RateCard): PackedCard => ({
  provider: card.provider,
  currency: card.currency,
  validFrom: card.validFrom,
  prices: card.prices.length,
  text: JSON.stringify(card),
})

/** A card of the database; ways to pay may still be called as cards called them first. */
const cardOf = (body: unknown): RateCard => earlierCard(body) as RateCard

/**
 * Keeps a card. One of a provider and day that is there already and differs becomes a further revision of that day; one that says the same
 * is not kept again.
 * @returns whether there was one of that day, whether it differed, and the revision that holds now.
 */
export async function saveRateCard(
  db: Db,
  card: PackedCard,
  who: string,
): Promise<{ replaced: boolean; changed: boolean; revision: number }> {
  const { provider, validFrom, text } = card
  return alone(db, `rate card ${provider}`, async tx => {
    const kept = await saidInEarlierWords(tx, card)
    if (kept !== null) return { replaced: true, changed: false, revision: kept }
    // the card is handed to the database once: it may be large
    const { rows } = await tx.execute<{ newest: number | null; added: number | null }>(sql`
      with given as (select ${text}::jsonb as body),
        newest as (
          select revision, body from rate_card where provider = ${provider} and valid_from = ${validFrom} order by revision desc limit 1
        ),
        added as (
          insert into rate_card (provider, valid_from, revision, body, who)
          select ${provider}, ${validFrom}, coalesce((select revision from newest), 0) + 1, given.body, ${who} from given
          where not exists (select 1 from newest where newest.body = given.body)
          returning revision
        )
      select (select revision from newest) as newest, (select revision from added) as added`)
    const { newest, added } = rows[0]!
    return { replaced: newest !== null, changed: added !== null, revision: (added ?? newest)! }
  })
}

/** The newest revision of a card's day, where it says the same as the card in words that cards had before; null where it does not. */
async function saidInEarlierWords(tx: Tx, { provider, validFrom, text }: PackedCard): Promise<number | null> {
  const [newest] = await tx
    .select({ revision: rateCard.revision, isEarlier: sql<boolean>`${rateCard.body}::text like ${`%${EARLIER_WORD}%`}` })
    .from(rateCard)
    .where(and(eq(rateCard.provider, provider), eq(rateCard.validFrom, validFrom)))
    .orderBy(desc(rateCard.revision))
    .limit(1)
  if (!newest?.isEarlier) return null
  const body = await findBody(tx, { provider, day: validFrom, revision: newest.revision }, rateCard.body)
  const { rows } = await tx.execute<{ same: boolean }>(sql`select ${JSON.stringify(cardOf(body))}::jsonb = ${text}::jsonb as same`)
  return rows[0]!.same ? newest.revision : null
}

/** Every version of every card, by provider, the newest first; of one day the newest revision first. */
export async function listRateCards(db: Db): Promise<RateCardEntry[]> {
  const { provider, validFrom, revision, body, who, loadedAt } = named(rateCard)
  return db
    .select({
      provider,
      currency: sql<string>`${body} ->> 'currency'`,
      validFrom,
      revision,
      prices: sql<number>`jsonb_array_length(${body} -> 'prices')`,
      regions: sql<string[]>`jsonb_path_query_array(${body}, '$.regions[*].id')`,
      who,
      loadedAt,
    })
    .from(rateCard)
    .orderBy(provider, desc(validFrom), desc(revision))
}

/** Which card: of a provider, that of a day, else the newest; of one day its newest revision, or the one that is asked for. */
type WhichCard = { provider: string; day?: string | undefined; revision?: number | undefined }

async function findBody<T>(
  db: Pick<Db, 'select'>,
  { provider, day, revision }: WhichCard,
  body: SQL<T> | typeof rateCard.body,
): Promise<T | null> {
  const ofDay = day
    ? revision === undefined
      ? sql`${rateCard.validFrom} <= ${day}`
      : and(eq(rateCard.validFrom, day), eq(rateCard.revision, revision))
    : undefined
  const [row] = await db
    .select({ body })
    .from(rateCard)
    .where(and(eq(rateCard.provider, provider), ofDay))
    .orderBy(desc(rateCard.validFrom), desc(rateCard.revision))
    .limit(1)
  return row ? (row.body as T) : null
}

/**
 * The card of a provider that holds on a day, the newest when no day is given; of one day its newest revision, or the one that is asked
 * for.
 */
export async function findRateCard(db: Db, provider: string, day?: string, revision?: number): Promise<RateCard | null> {
  const body = await findBody(db, { provider, day, revision }, rateCard.body)
  return body ? cardOf(body) : null
}

/** The cards that hold on a day of providers who have told of another that holds later. */
export async function cardsUntilLater(db: Db, day: Day): Promise<RateCard[]> {
  const newest = db
    .selectDistinctOn([rateCard.provider], { provider: rateCard.provider, validFrom: rateCard.validFrom, body: rateCard.body })
    .from(rateCard)
  const inOrder = [rateCard.provider, desc(rateCard.validFrom), desc(rateCard.revision)] as const
  const [later, now] = await Promise.all([
    db.selectDistinct({ provider: rateCard.provider }).from(rateCard).where(gt(rateCard.validFrom, day)),
    newest.where(lte(rateCard.validFrom, day)).orderBy(...inOrder),
  ])
  const isLater = new Set(later.map(({ provider }) => provider))
  return now.flatMap(({ provider, body }) => (isLater.has(provider) ? [cardOf(body)] : []))
}

/** The same as its JSON text, written by the database. */
export async function findRateCardText(db: Db, which: WhichCard): Promise<string | null> {
  const text = await findBody(db, which, sql<string>`${rateCard.body}::text`)
  return text?.includes(EARLIER_WORD) ? JSON.stringify(cardOf(JSON.parse(text))) : text
}

/** In the text of a card that calls ways to pay as cards called them first. */
const EARLIER_WORD = '"upfront":'
