import type { Estimate } from './estimate'

/** The estimate priced on the version of a provider's rate card that holds from a day; a provider that it did not have is added. */
export function nameCard(estimate: Estimate, provider: string, date: string): Estimate {
  const known = estimate.cards.some(c => c.provider === provider)
  return { ...estimate, cards: known ? estimate.cards.map(c => c.provider === provider ? { provider, date } : c) : [...estimate.cards, { provider, date }] }
}
