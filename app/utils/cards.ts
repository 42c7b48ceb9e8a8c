import { client, RequestFailed } from './client'
import { rateCardSchema, type RateCard } from '../../core/ratecard/rate-card'
import type { RateCardEntry } from '../../shared/contracts/reference-data'

/** The version of each provider's rate card that holds on a day; where none does yet, the first that will. The list is newest first. */
export function cardsHeld(list: readonly RateCardEntry[], day: string): RateCardEntry[] {
  const providers = [...new Set(list.map(card => card.provider))]
  return providers.map((provider) => {
    const own = list.filter(card => card.provider === provider)
    return own.find(card => card.validFrom <= day) ?? own.at(-1)!
  })
}

/** Today, as rate cards count. */
export const today = () => new Date().toISOString().slice(0, 10)

/** A provider's card as of a day; null when none is loaded. Any other failure is thrown. */
export async function findCard(provider: string, date: string): Promise<RateCard | null> {
  try {
    return await client.get(`rate-cards/${encodeURIComponent(provider)}?date=${date}`, rateCardSchema)
  }
  catch (error) {
    if (error instanceof RequestFailed && error.problem.status === 404) return null
    throw error
  }
}
