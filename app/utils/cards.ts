import { client, RequestFailed } from './client'
import type { CardVersion } from '../../core/estimate/sheet/name-card'
import { rateCardSchema, type RateCard } from '../../core/ratecard/rate-card'
import { dayText } from '../../shared/words/days'
import type { RateCardEntry } from '../../shared/contracts/reference-data'

/** The version of each provider's rate card that holds on a day; where none does yet, the first that will. The list is newest first. */
export function cardsHeld(list: readonly RateCardEntry[], day: string): RateCardEntry[] {
  const providers = [...new Set(list.map(card => card.provider))]
  return providers.map(provider => {
    const own = list.filter(card => card.provider === provider)
    return own.find(card => card.validFrom <= day) ?? own.at(-1)!
  })
}

export { today } from '../../shared/today'

/** A version of a card by name. */
export const versionOfEntry = ({
  provider,
  validFrom,
  revision,
}: Pick<RateCardEntry, 'provider' | 'validFrom' | 'revision'>): CardVersion => ({ provider, date: validFrom, revision })
export const keyOfCard = ({ provider, date, revision }: CardVersion) => `${provider} ${date} ${revision}`
/** Where a version of a card is read. */
export const cardPath = ({ provider, date, revision }: CardVersion) =>
  `rate-cards/${encodeURIComponent(provider)}?date=${date}&revision=${revision}`
/** Whether a card comes after a version: from a later day, or as a further revision of the same. */
export const isNewer = (card: Pick<RateCardEntry, 'validFrom' | 'revision'>, than: Pick<CardVersion, 'date' | 'revision'>) =>
  card.validFrom > than.date || (card.validFrom === than.date && card.revision > than.revision)
/** A version in words: its day, and its revision where there is more than one. */
export const versionText = ({ date, revision }: Pick<CardVersion, 'date' | 'revision'>) =>
  `${dayText(date)}${revision > 1 ? `, revision ${revision}` : ''}`

/** A version of a card; null when it is not loaded. Any other failure is thrown. */
export async function findVersion(card: CardVersion): Promise<RateCard | null> {
  return orNull(client.get(cardPath(card), rateCardSchema))
}

/** A provider's card as of a day; null when none is loaded. Any other failure is thrown. */
export async function findCard(provider: string, date: string): Promise<RateCard | null> {
  return orNull(client.get(`rate-cards/${encodeURIComponent(provider)}?date=${date}`, rateCardSchema))
}

async function orNull<T>(asked: Promise<T>): Promise<T | null> {
  try {
    return await asked
  } catch (error) {
    if (error instanceof RequestFailed && error.problem.status === 404) return null
    throw error
  }
}
