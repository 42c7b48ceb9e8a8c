import type { Prices } from '../../core/estimate/pricing/price-estimate'
import { rateCardSchema } from '../../core/ratecard/rate-card'
import { upliftList } from '../../shared/contracts/estimates'
import { rateCardList, type RateCardEntry } from '../../shared/contracts/reference-data'
import { rateList } from '../../shared/contracts/spend-settings'
import { onMounted, ref, shallowRef } from 'vue'
import { cardPath, cardsHeld, today, versionOfEntry } from '../utils/cards'
import { client, problemOf } from '../utils/client'

/**
 * The rate card of every provider that holds today with the organisation's uplifts: what things cost when nothing has been chosen yet.
 */
export function usePrices() {
  const prices = shallowRef<Prices | null>(null)
  const cards = shallowRef<RateCardEntry[]>([])
  const problem = ref<ReturnType<typeof problemOf> | null>(null)
  async function load() {
    try {
      const [{ cards: list }, { uplifts }, { rates }] = await Promise.all([
        client.get('rate-cards', rateCardList),
        client.get('uplifts', upliftList),
        client.get('rates', rateList),
      ])
      const held = cardsHeld(list, today())
      const bodies = await Promise.all(held.map(c => client.get(cardPath(versionOfEntry(c)), rateCardSchema)))
      cards.value = list
      prices.value = { cards: new Map(bodies.map(c => [c.provider, c])), uplifts, rates }
      problem.value = null
    } catch (error) {
      problem.value = problemOf(error)
    }
  }
  onMounted(load)
  return { prices, cards, problem, load }
}
