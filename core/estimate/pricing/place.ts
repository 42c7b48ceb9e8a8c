import type { RateCard } from '../../ratecard/rate-card'
import type { Place } from '../components/kind'
import type { Estimate } from '../estimate'

/** Writes where a row stands: a region of the estimate's own provider, or of another one. */
export function placeText(provider: string, region: string, estimate: Pick<Estimate, 'provider' | 'region'>): string {
  if (provider !== estimate.provider) return `${provider}/${region}`
  return region === estimate.region ? '' : region
}

/** Reads where a row stands: nothing for where the estimate stands, a region, or provider/region. Null when no card has it. */
export function findPlace(
  where: string,
  estimate: Pick<Estimate, 'provider' | 'region'>,
  cards: ReadonlyMap<string, RateCard>,
): Place | null {
  const slash = where.lastIndexOf('/')
  const provider = slash > 0 ? where.slice(0, slash) : estimate.provider
  const region = slash > 0 ? where.slice(slash + 1) : where || estimate.region
  const card = cards.get(provider)
  return card?.regions.some(r => r.id === region) ? { card, region } : null
}
