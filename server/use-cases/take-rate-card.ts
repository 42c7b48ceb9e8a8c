import type { Work } from './work'
import { saveRateCard, type PackedCard } from '../stores/rate-cards'

/** Keeps a rate card; from then on charges are told by it what their SKUs are charged for. */
export async function takeRateCard(
  { database, refreshReference }: Pick<Work, 'database' | 'refreshReference'>,
  card: PackedCard,
  who: string,
): Promise<{ provider: string; validFrom: string; prices: number; replaced: boolean; changed: boolean; revision: number }> {
  const done = await saveRateCard(database.db, card, who)
  if (done.changed) await refreshReference()
  const { provider, validFrom, prices } = card
  return { provider, validFrom, prices, ...done }
}
