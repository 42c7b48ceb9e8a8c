import { defineStore } from 'pinia'
import { addTexts } from '../../core/money/amount-text'
import type { ProblemDetails } from '../../shared/contracts/common'
import { actionPreview, savingsState, type ActionPreview, type SavingsState } from '../../shared/contracts/savings'
import { computed, ref } from 'vue'
import { useSession } from './session'
import { client, problemOf } from '../utils/client'

export const useSavings = defineStore('savings', () => {
  const session = useSession()
  const state = ref<SavingsState | null>(null)
  const problem = ref<ProblemDetails | null>(null)
  const looking = ref(false)
  const chosenId = ref<string | null>(null)
  const preview = ref<ActionPreview | null>(null)
  const acting = ref(false)

  const chosen = computed(() => state.value?.opportunities.find(o => o.id === chosenId.value) ?? null)
  const open = computed(() => state.value?.opportunities.filter(o => o.state !== 'done' && o.state !== 'gone') ?? [])
  const currency = computed(() => state.value?.opportunities[0]?.currency ?? 'EUR')
  const monthly = computed(() => addTexts(open.value.map(o => o.monthlySaving)))
  const promised = computed(() => addTexts(state.value?.ledger.map(l => l.promised ?? '0') ?? []))
  const seen = computed(() => addTexts(state.value?.ledger.map(l => l.seen ?? '0') ?? []))

  async function attempt(work: () => Promise<void>) {
    try {
      await work()
      problem.value = null
    } catch (error) {
      problem.value = problemOf(error)
    }
  }

  const load = () =>
    attempt(async () => {
      state.value = await client.get('savings', savingsState)
      await session.load()
      if (session.seesAll && state.value.connected && !state.value.opportunities.length) await look()
    })
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

  return {
    state,
    problem,
    looking,
    chosenId,
    chosen,
    preview,
    acting,
    open,
    currency,
    monthly,
    promised,
    seen,
    load,
    look,
    choose,
    showPreview,
    approve,
  }
})
