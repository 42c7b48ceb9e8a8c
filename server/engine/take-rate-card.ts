import type { RateCard } from '../../core/ratecard/rate-card'
import type { Services } from '../services'
import { saveRateCard } from '../stores/rate-cards'

/** Keeps a rate card; from then on charges are told by it what their SKUs are charged for. */
export async function takeRateCard(
  { database, cube }: Pick<Services, 'database' | 'cube'>,
  card: RateCard,
  who: string,
): ReturnType<typeof saveRateCard> {
  const done = await saveRateCard(database.db, card, who)
  if (done.changed) await cube.refreshReference()
  return done
}
