import { shallowRef } from 'vue'
import type { CardVersion } from '../../core/estimate/sheet/name-card'
import { rateCardSchema, type RateCard } from '../../core/ratecard/rate-card'
import { cardPath, keyOfCard } from './cards'
import { client } from './client'

export const loadCard = (card: CardVersion): Promise<RateCard> => client.get(cardPath(card), rateCardSchema)

/** The rate cards that an estimate stands on, by provider. Versions that were on the screen are kept: undo may go back to one. */
export function estimateCards() {
  const cards = shallowRef(new Map<string, RateCard>())
  const bodies = new Map<string, RateCard>()

  /** Puts the estimate on versions of cards; those that are not known are loaded. */
  async function standOn(named: readonly CardVersion[]) {
    if (named.every(card => bodies.has(keyOfCard(card)) && cards.value.get(card.provider) === bodies.get(keyOfCard(card)))) return
    const loaded = await Promise.all(named.map(card => bodies.get(keyOfCard(card)) ?? loadCard(card)))
    loaded.forEach((body, i) => bodies.set(keyOfCard(named[i]!), body))
    cards.value = new Map(loaded.map(body => [body.provider, body]))
  }
  /** Puts one version in the place of another of its provider, or beside the others. */
  function put(card: CardVersion, body: RateCard) {
    bodies.set(keyOfCard(card), body)
    cards.value = new Map(cards.value).set(card.provider, body)
  }
  return { cards, standOn, put, forget: () => bodies.clear() }
}
