import { defineStore } from 'pinia'
import { computed, reactive, ref } from 'vue'
import { savingsCurve, minutesToHalf } from '../../core/opportunity/curve'
import { groupSavings, savedOf, type GroupedBy, type ListOrder } from '../../core/opportunity/grouped'
import { ledgerTotals } from '../../core/opportunity/ledger-groups'
import { addTexts } from '../../core/money/amount-text'
import type { ProblemDetails } from '../../shared/contracts/common'
import {
  actionPreview,
  actsPreview,
  type ActsPreview,
  savingsState,
  thresholdsPreview,
  type ActionPreview,
  type SavingsDecision,
  type SavingsState,
  type ThresholdsPreview,
  type ThresholdsSet,
} from '../../shared/contracts/savings'
import { listLink, savingsLists, type ListsToMake, type SavingsLists } from '../../shared/contracts/savings-lists'
import { useSession } from './session'
import { client, problemOf } from '../utils/client'
import { listedOf, type SavingsNarrowing } from '../utils/savings-list'

export const useSavings = defineStore('savings', () => {
  const session = useSession()
  const state = ref<SavingsState | null>(null)
  const problem = ref<ProblemDetails | null>(null)
  const looking = ref(false)
  const chosenId = ref<string | null>(null)
  const preview = ref<ActionPreview | null>(null)
  const acting = ref(false)
  /** What the list shows, as the page's address has it. */
  const narrowing = reactive<SavingsNarrowing & { by: GroupedBy; order: ListOrder }>({
    ...{ detector: null, centre: null, state: 'open', by: 'detectorLabel', order: 'per hour' },
  })
  /** Ticked, for what is done with several at once. */
  const ticked = ref<string[]>([])

  const currency = computed(() => state.value?.whole.currency ?? 'EUR')
  const listed = computed(() =>
    state.value ? listedOf(state.value.opportunities, state.value.finders, state.value.whole.currency, narrowing) : [],
  )
  const groups = computed(() => groupSavings(listed.value, narrowing.by, narrowing.order))
  const saved = computed(() => savedOf(listed.value))
  const curve = computed(() =>
    savingsCurve(listed.value.map(({ id, saved, minutesOfWork: minutes }) => ({ id, saved: saved ?? '0', minutes }))),
  )
  const half = computed(() => minutesToHalf(curve.value))
  const shownIds = computed(() => new Set(listed.value.map(({ id }) => id)))
  /** What the list does not count since another does. */
  const notCounted = computed(() => (state.value?.whole.notCounted ?? []).filter(({ id }) => shownIds.value.has(id)))
  const notCountedSum = computed(() => addTexts(notCounted.value.map(({ amount }) => amount)))
  const chosen = computed(() => state.value?.opportunities.find(o => o.id === chosenId.value) ?? null)
  /** What was done, with what it is of and whose. */
  const ledger = computed(() => {
    const views = new Map(state.value?.opportunities.map(one => [one.id, one]))
    const labels = new Map(state.value?.finders.map(({ detector, label }) => [detector, label]))
    return (state.value?.ledger ?? []).map(line => {
      return { ...line, owner: views.get(line.opportunity)?.owner ?? null, detectorLabel: labels.get(line.detector) ?? '' }
    })
  })
  const ledgerSums = computed(() => ledgerTotals(ledger.value))

  async function attempt(work: () => Promise<void>): Promise<boolean> {
    try {
      await work()
      problem.value = null
      return true
    } catch (error) {
      problem.value = problemOf(error)
      return false
    }
  }

  /** Reads what is found, as it is. */
  const read = () =>
    attempt(async () => {
      state.value = await client.get('savings', savingsState)
    })
  /** The same, and looks through the connections where that was never done. */
  const load = async () => {
    if (!(await read()) || !state.value) return
    await session.load()
    const isLookedThrough = state.value.finders.some(({ from, found }) => from === 'connection' && found > 0)
    if (session.seesAll && state.value.connected && !isLookedThrough) await look()
  }
  async function look() {
    looking.value = true
    await attempt(async () => {
      state.value = await client.send('POST', 'savings/look', {}, savingsState)
    })
    looking.value = false
  }
  function choose(id: string | null) {
    chosenId.value = id
    preview.value = null
  }
  function tick(ids: readonly string[], isOn: boolean) {
    const others = ticked.value.filter(id => !ids.includes(id))
    ticked.value = isOn ? [...others, ...ids] : others
  }
  /** Keeps what is decided. @returns whether it was kept. */
  const decide = (decision: SavingsDecision) =>
    attempt(async () => {
      state.value = await client.send('POST', 'savings/decisions', decision, savingsState)
      ticked.value = ticked.value.filter(id => shownIds.value.has(id))
    })
  const showPreview = () =>
    attempt(async () => {
      preview.value = await client.send('POST', 'savings/preview', { id: chosenId.value }, actionPreview)
    })
  async function approve() {
    if (acting.value || !chosenId.value) return
    acting.value = true
    await attempt(async () => {
      state.value = await client.send('POST', 'savings/approve', { id: chosenId.value }, savingsState)
      preview.value = null
    })
    if (problem.value) {
      const failure = problem.value
      await attempt(async () => {
        state.value = await client.get('savings', savingsState)
      })
      problem.value = failure
    }
    acting.value = false
  }
  /** Undoes what was done about the one that is shown. */
  async function undo() {
    acting.value = true
    await attempt(async () => {
      state.value = await client.send('POST', 'savings/undo', { id: chosenId.value }, savingsState)
    })
    acting.value = false
  }
  /** What is acted on together, since this page was opened. */
  const batchIds = ref<string[]>([])
  const isBatchUnderWay = ref(false)
  const batch = computed(() => {
    if (!batchIds.value.length) return null
    const rows = batchIds.value.flatMap(id => state.value?.opportunities.find(one => one.id === id) ?? [])
    const done = rows.filter(({ action }) => action?.state === 'done')
    const failed = rows.filter(({ action }) => action && ['failed', 'lapsed', 'not known'].includes(action.state))
    const waiting = rows.filter(({ action }) => action?.state === 'waiting').length
    return { done, failed, waiting, open: rows.length - done.length - failed.length, isUnderWay: isBatchUnderWay.value }
  })
  async function previewActs(ids: string[]): Promise<ActsPreview | null> {
    let made: ActsPreview | null = null
    await attempt(async () => {
      made = await client.send('POST', 'savings/acts/preview', { ids }, actsPreview)
    })
    return made
  }
  /** Approves several and follows what becomes of them. */
  async function actOn(ids: string[]) {
    const isBegun = await attempt(async () => {
      state.value = await client.send('POST', 'savings/acts', { ids }, savingsState)
    })
    if (!isBegun) return
    batchIds.value = ids
    ticked.value = []
    isBatchUnderWay.value = true
    await attempt(async () => {
      while (batch.value && batch.value.open > batch.value.waiting) {
        await new Promise(resolve => setTimeout(resolve, 500))
        state.value = await client.get('savings', savingsState)
      }
    })
    isBatchUnderWay.value = false
  }
  /** Sets above which monthly saving together a second person has to approve. */
  const setApprovalLimit = (above: string | null) =>
    attempt(async () => {
      state.value = await client.send('PUT', 'savings/acts/limit', { above }, savingsState)
    })
  const stopActs = () =>
    attempt(async () => {
      state.value = await client.send('POST', 'savings/acts/stop', {}, savingsState)
    })
  function forgetBatch() {
    batchIds.value = []
  }
  /** Lists that were handed over; null until they are asked for. */
  const lists = ref<SavingsLists | null>(null)
  const loadLists = () =>
    attempt(async () => {
      lists.value = await client.get('savings/lists', savingsLists)
    })
  /** Makes a list for each owner. @returns those, and whose owner nobody knows; null where none could be made. */
  async function handOver(asked: ListsToMake): Promise<SavingsLists | null> {
    let made: SavingsLists | null = null
    await attempt(async () => {
      made = await client.send('POST', 'savings/lists', asked, savingsLists)
      await loadLists()
    })
    return made
  }
  /** A link that opens a list, as a path; null where it could not be made. */
  async function linkTo(id: string): Promise<string | null> {
    let path: string | null = null
    await attempt(async () => {
      path = (await client.send('POST', `savings/lists/${id}/link`, {}, listLink)).path
    })
    return path
  }
  const takeBack = (id: string) =>
    attempt(async () => {
      lists.value = await client.send('DELETE', `savings/lists/${id}`, {}, savingsLists)
    })

  /** What other thresholds would find; null where it cannot be said. */
  async function tryThresholds(asked: ThresholdsSet): Promise<ThresholdsPreview | null> {
    let found: ThresholdsPreview | null = null
    await attempt(async () => {
      found = await client.send('POST', 'savings/thresholds/preview', asked, thresholdsPreview)
    })
    return found
  }
  const setThresholds = (asked: ThresholdsSet) =>
    attempt(async () => {
      state.value = await client.send('PUT', 'savings/thresholds', asked, savingsState)
    })

  return {
    ...{ state, problem, looking, chosenId, chosen, preview, acting, narrowing, ticked },
    ...{ currency, listed, groups, saved, curve, half, notCounted, notCountedSum, ledger, ledgerSums },
    ...{ lists, loadLists, handOver, linkTo, takeBack, batch, previewActs, actOn, stopActs, forgetBatch, setApprovalLimit },
    ...{ read, load, look, choose, tick, decide, showPreview, approve, undo, tryThresholds, setThresholds },
  }
})
