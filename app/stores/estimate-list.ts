import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'
import type { Estimate } from '../../core/estimate/estimate'
import { figureText, priceEstimate } from '../../core/estimate/pricing/price-estimate'
import { notCounted } from '../../core/estimate/scenarios/compare'
import { rowLabel } from '../../core/estimate/sheet/row-name'
import { roundText } from '../../core/money/amount-text'
import type { Rate } from '../../core/money/rates'
import type { RateCard } from '../../core/ratecard/rate-card'
import type { StoredUplift } from '../../core/uplift/uplift-set'
import { estimateList, estimateSaved, kept, upliftList, type Filing, type ListedEstimate } from '../../shared/contracts/estimates'
import { rateCardList, type RateCardEntry } from '../../shared/contracts/reference-data'
import { rateList } from '../../shared/contracts/spend-settings'
import { findVersion, isNewer, keyOfCard, versionText } from '../utils/cards'
import { client } from '../utils/client'
import { money } from '../../shared/words/amounts'

/** What an estimate costs a month and how many rows that lacks, or why it cannot be priced. */
export type ListedTotal = { amount: string; lacks: number; why: string }

/** All estimates that are saved, with what each costs a month. */
export const useEstimateList = defineStore('estimate-list', () => {
  const list = shallowRef<ListedEstimate[] | null>(null)
  const cards = shallowRef<RateCardEntry[]>([])
  const rates = shallowRef<Rate[]>([])
  const uplifts = shallowRef<StoredUplift[]>([])
  const bodies = shallowRef(new Map<string, RateCard>())

  async function load() {
    const [estimates, known, own, dated] = await Promise.all([
      client.get('estimates', estimateList),
      client.get('rate-cards', rateCardList),
      client.get('uplifts', upliftList),
      client.get('rates', rateList),
    ])
    const wanted = new Map(estimates.estimates.flatMap(saved => saved.estimate?.cards.map(c => [keyOfCard(c), c] as const) ?? []))
    const unread = [...wanted].filter(([key]) => !bodies.value.has(key))
    const found = await Promise.all(unread.map(async ([key, card]) => [key, await findVersion(card)] as const))
    bodies.value = new Map([...bodies.value, ...found.flatMap(([key, body]) => (body ? [[key, body] as const] : []))])
    uplifts.value = own.uplifts
    rates.value = dated.rates
    cards.value = known.cards
    list.value = estimates.estimates
  }

  /** One that fails leaves the others as they are. */
  function totalOf({ estimate, problem }: ListedEstimate): ListedTotal {
    const none = (why: string): ListedTotal => ({ amount: '', lacks: 0, why })
    if (!estimate) return none(`cannot be read: ${problem ?? ''}`)
    const missing = estimate.cards.find(card => !bodies.value.has(keyOfCard(card)))
    if (missing) return none(`rate card missing: ${missing.provider}, ${versionText(missing)}`)
    const own = new Map(estimate.cards.map(card => [card.provider, bodies.value.get(keyOfCard(card))!]))
    try {
      const priced = priceEstimate(estimate, { cards: own, uplifts: uplifts.value, rates: rates.value })
      const amount = `${money(roundText(figureText(priced.total.effectiveMonthly)), priced.currency)} ${priced.currency}`
      return { amount, lacks: notCounted(priced, priced)?.rows ?? 0, why: '' }
    } catch (error) {
      return none(`cannot be priced: ${error instanceof Error ? error.message : String(error)}`)
    }
  }
  const totals = computed(() => new Map(list.value?.map(saved => [saved.id, totalOf(saved)])))
  /** Whether a newer version of one of its cards is loaded. */
  const hasNewerCard = (estimate: Estimate) =>
    estimate.cards.some(card => cards.value.some(known => known.provider === card.provider && isNewer(known, card)))
  const folders = computed(() => [...new Set(list.value?.map(saved => saved.folder).filter(Boolean))].sort((a, b) => a.localeCompare(b)))

  /** Saves a new estimate. @returns its id. */
  async function save(estimate: Estimate): Promise<string> {
    const id = crypto.randomUUID()
    await client.send('PUT', `estimates/${id}`, { basedOn: null, estimate }, estimateSaved)
    return id
  }
  async function file({ id, folder, putAway }: ListedEstimate, change: Partial<Filing>) {
    await client.send('PUT', `estimates/${id}/filing`, { folder, putAway, ...change }, kept)
    await load()
  }

  return { list, cards, totals, folders, load, hasNewerCard, save, file }
})

/** Everything that an estimate is found by, in small letters. */
export function soughtText({ title, folder, who, name, estimate }: ListedEstimate): string {
  const own = estimate
    ? [
        estimate.region,
        estimate.note,
        ...estimate.cards.map(card => card.provider),
        ...estimate.components.flatMap(row => [row.part, rowLabel(row), row.inputs.size ?? '']),
      ]
    : []
  return [title, folder, who, name ?? '', ...own].join(' ').toLowerCase()
}
