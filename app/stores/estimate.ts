import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { findBlindSpots } from '../../core/estimate/blind-spots'
import { isOffered } from '../../core/estimate/components'
import type { ComponentKind } from '../../core/estimate/components/kind'
import { writeEstimate } from '../../core/estimate/documents/estimate-file'
import { estimateSchema, type Estimate } from '../../core/estimate/estimate'
import type { Pattern } from '../../core/estimate/pattern'
import { priceScenarios, type FigureName, type Prices } from '../../core/estimate/pricing/price-estimate'
import { PriceMemo } from '../../core/estimate/pricing/price-memo'
import { compareScenarios, type Comparison } from '../../core/estimate/scenarios/compare'
import { partsOf, type Edit } from '../../core/estimate/sheet/edit-rows'
import { explainedWorkings, type Explained } from '../../core/estimate/sheet/explained'
import { nameCard as withCard, priceOnCard, type CardVersion } from '../../core/estimate/sheet/name-card'
import { findNotices } from '../../core/estimate/sheet/notices'
import type { Rate } from '../../core/money/rates'
import type { StoredUplift } from '../../core/uplift/uplift-set'
import type { ProblemDetails } from '../../shared/contracts/common'
import { estimateSaved, patternList, savedEstimate, upliftList, type SavedEstimate } from '../../shared/contracts/estimates'
import { rateCardList, type RateCardEntry } from '../../shared/contracts/reference-data'
import { rateList } from '../../shared/contracts/spend-settings'
import { cardsHeld, isNewer, today, versionOfEntry } from '../utils/cards'
import { client, problemOf } from '../utils/client'
import { estimateCards, loadCard } from '../utils/estimate-cards'
import { rowActions } from '../utils/estimate-rows'
import { scenarioActions } from '../utils/estimate-scenarios'
import { undoable } from '../utils/undo'
import { useSession } from './session'

/** One estimate being worked on: its inputs, everything computed from them, undo without limit, and what is saved. */
export const useEstimate = defineStore('estimate', () => {
  const id = ref<string | null>(null)
  const saved = shallowRef<SavedEstimate | null>(null)
  const estimate = shallowRef<Estimate | null>(null)
  const { cards, standOn, put, forget } = estimateCards()
  const cardList = shallowRef<RateCardEntry[]>([])
  const uplifts = shallowRef<StoredUplift[]>([])
  /** The dated exchange rates of Sources. */
  const rates = shallowRef<Rate[]>([])
  const patterns = shallowRef<Pattern[]>([])
  const problem = ref<ProblemDetails | null>(null)
  /** Whether the problem is that someone else has saved meanwhile. */
  const overtaken = ref<SavedEstimate | null>(null)
  const saving = ref(false)
  const explained = ref<Explained | null>(null)
  /** The scenario that is being looked at and edited; null for the estimate as it stands. */
  const scenarioId = ref<string | null>(null)
  let memo = new PriceMemo()
  const history = undoable(estimate, ({ scenarios }) => {
    if (scenarioId.value && !scenarios.some(scenario => scenario.id === scenarioId.value)) scenarioId.value = null
  })
  /** Changes the estimate, leaving what does not change as it is: what is the same is not priced again. One step of undo. */
  const change = (edit: Edit) => history.change(edit)

  const prices = computed((): Prices => ({ cards: cards.value, uplifts: uplifts.value, rates: rates.value }))
  const columns = computed(() => (estimate.value ? priceScenarios(estimate.value, prices.value, memo) : []))
  const base = computed(() => columns.value[0] ?? null)
  const scenario = computed(() => estimate.value?.scenarios.find(s => s.id === scenarioId.value) ?? null)
  /** The column that the sheet shows its inputs of. */
  const priced = computed(() => columns.value.find(c => c.scenario === scenarioId.value) ?? base.value)
  const currency = computed(() => base.value?.currency ?? 'EUR')
  /** How each scenario differs from the first, over the rows that both can price. */
  const differences = (name: FigureName): Map<string, Comparison> =>
    new Map(
      columns.value
        .slice(1)
        .map(other => [other.scenario!, compareScenarios(estimate.value!, prices.value, base.value!, other, name, memo)]),
    )
  const spots = computed(() => (estimate.value && base.value ? findBlindSpots({ estimate: estimate.value, priced: base.value }) : []))
  const notices = computed(() => (estimate.value && priced.value ? findNotices(estimate.value, priced.value) : []))
  const unsaved = computed(
    () =>
      estimate.value !== null &&
      estimate.value !== saved.value?.estimate &&
      JSON.stringify(estimate.value) !== JSON.stringify(saved.value?.estimate),
  )
  const parts = computed(() => (estimate.value ? partsOf(estimate.value) : []))
  const card = computed(() => cards.value.get(estimate.value?.provider ?? '') ?? null)
  /** Newer versions of the cards that it is priced on. */
  const newerCards = computed(
    () =>
      estimate.value?.cards.flatMap(({ provider, date, revision }) =>
        cardList.value.filter(c => c.provider === provider && isNewer(c, { date, revision })).slice(0, 1),
      ) ?? [],
  )

  const byId = computed(() => new Map(estimate.value?.components.map(c => [c.id, c]) ?? []))
  /** Workings of the amount that was asked about, as it is now. */
  const workings = computed(() =>
    explained.value && priced.value && estimate.value ? explainedWorkings(explained.value, estimate.value, priced.value) : null,
  )

  async function open(which: string) {
    problem.value = null
    overtaken.value = null
    estimate.value = null
    try {
      const [found, list, own, patternsFound, ratesFound] = await Promise.all([
        client.get(`estimates/${which}`, savedEstimate),
        client.get('rate-cards', rateCardList),
        client.get('uplifts', upliftList),
        client.get('patterns', patternList),
        client.get('rates', rateList),
      ])
      forget()
      await standOn(found.estimate.cards)
      cardList.value = list.cards
      uplifts.value = own.uplifts
      rates.value = ratesFound.rates
      patterns.value = patternsFound.patterns.map(p => p.pattern)
      take(found)
    } catch (error) {
      problem.value = problemOf(error)
    }
  }

  function take(found: SavedEstimate) {
    memo = new PriceMemo()
    id.value = found.id
    saved.value = found
    estimate.value = found.estimate
    history.forget()
    explained.value = null
    scenarioId.value = null
    overtaken.value = null
  }

  const patch = (values: Partial<Estimate>) => change(e => ({ ...e, ...values }))

  /** Saves what is on the screen. @param name makes it a version to come back to. */
  async function save(name: string | null = null): Promise<boolean> {
    if (!estimate.value || !id.value || saving.value) return false
    const checked = estimateSchema.safeParse(estimate.value)
    if (!checked.success) {
      problem.value = {
        type: '',
        status: 0,
        code: 'invalid',
        title: 'The estimate cannot be saved yet',
        detail: checked.error.issues.map(i => `${i.path.join('.')}: ${i.message}`).join('; '),
      }
      return false
    }
    saving.value = true
    try {
      const body = estimate.value
      const { version } = await client.send(
        'PUT',
        `estimates/${id.value}`,
        { basedOn: saved.value?.version ?? null, estimate: body, name },
        estimateSaved,
      )
      saved.value = { id: id.value, version, who: useSession().who, savedAt: new Date().toISOString(), estimate: body, name }
      problem.value = null
      return true
    } catch (error) {
      problem.value = problemOf(error)
      if (problem.value.status === 409) overtaken.value = await client.get(`estimates/${id.value}`, savedEstimate).catch(() => null)
      return false
    } finally {
      saving.value = false
    }
  }
  /** Keeps what is on the screen as an estimate of its own, when someone else was quicker. @returns its id. */
  async function saveApart(): Promise<string | null> {
    if (!estimate.value) return null
    const own = crypto.randomUUID()
    try {
      await client.send(
        'PUT',
        `estimates/${own}`,
        { basedOn: null, estimate: { ...estimate.value, name: `${estimate.value.name} (${useSession().who})`.slice(0, 120) } },
        estimateSaved,
      )
      saved.value = saved.value && { ...saved.value, estimate: estimate.value }
      return own
    } catch (error) {
      problem.value = problemOf(error)
      return null
    }
  }

  const atWork = { estimate, cards, priced, scenarioId, change }
  const rows = rowActions(atWork)
  const { addMoved, ...scenarios } = scenarioActions(atWork, () => prices.value)
  const offered = (kind: ComponentKind) =>
    !estimate.value || [...cards.value.values()].some(card => card.regions.some(region => isOffered(kind, card, region.id)))

  /** A scenario in which everything stands elsewhere; another provider's card is named in the estimate. @returns its id. */
  async function addMove(provider: string, region: string): Promise<string | null> {
    try {
      const held = cards.value.has(provider) ? null : cardsHeld(cardList.value, today()).find(card => card.provider === provider)!
      if (held) await nameCard(versionOfEntry(held))
      return addMoved(provider, region)
    } catch (error) {
      problem.value = problemOf(error)
      return null
    }
  }

  /** Names a version of a card that rows may stand on, or another version of one that is named. */
  async function nameCard(card: CardVersion) {
    const loaded = await loadCard(card)
    const before = cards.value
    put(card, loaded)
    change(e => (before.has(card.provider) ? priceOnCard(e, before, card, loaded).estimate : withCard(e, card)))
  }

  // undo may go back to another version of a card
  watch(
    () => estimate.value?.cards,
    named =>
      standOn(named ?? []).catch((error: unknown) => {
        problem.value = problemOf(error)
      }),
  )

  /** The file that goes out; the same comes in again. */
  const json = () => writeEstimate(estimate.value!)

  return {
    ...{ id, saved, estimate, problem, overtaken, saving, unsaved, open, take, save, saveApart, json },
    ...{ cards, cardList, card, newerCards, loadCard, nameCard, uplifts, rates, patterns, prices },
    ...{ explained, workings, columns, base, priced, currency, differences, spots, notices, parts, byId, offered },
    ...{ past: history.past, future: history.future, change, patch, undo: history.undo, redo: history.redo },
    ...{ scenario, scenarioId, addMove },
    ...rows,
    ...scenarios,
  }
})
