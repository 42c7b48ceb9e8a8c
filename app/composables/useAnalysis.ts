import { watchDebounced } from '@vueuse/core'
import type { Assumptions } from '../../core/estimate/documents/assumptions'
import type { Prices } from '../../core/estimate/pricing/price-estimate'
import type { Simulated } from '../../core/estimate/ranges/simulate'
import type { Closer } from '../../core/estimate/scenarios/close-gap'
import type { AnalysisReply, AnalysisTask } from '../utils/analysis'
import { ref, shallowRef, toRaw } from 'vue'
import { useEstimate } from '../stores/estimate'

/** What a worker finds out about the estimate that is open, a moment after each change. The sheet never waits for it. */
export function useAnalysis() {
  const store = useEstimate()
  /** What filling each blind spot would add to a month, by its id; null where the rate card has no price for it. */
  const sizes = shallowRef<Record<string, string | null>>({})
  const assumptions = shallowRef<Assumptions>({ list: [], more: 0 })
  const closers = shallowRef<Closer[]>([])
  const simulated = shallowRef<Simulated | null>(null)
  /** Draws that are done; null when none are under way. */
  const drawn = ref<number | null>(null)
  const failed = ref('')
  let number = 0
  let sent: Prices | null = null
  const worker = new Worker(new URL('../workers/estimate.ts', import.meta.url), { type: 'module' })
  const send = (task: AnalysisTask) => worker.postMessage(task)
  worker.addEventListener('message', ({ data }: MessageEvent<AnalysisReply>) => {
    if (data.number !== number) return
    if ('sizes' in data) sizes.value = data.sizes
    else if ('assumptions' in data) assumptions.value = data.assumptions
    else if ('closers' in data) closers.value = data.closers
    else if ('drawn' in data) drawn.value = data.drawn
    else {
      simulated.value = data.simulated
      drawn.value = null
    }
    failed.value = ''
  })
  worker.addEventListener('error', event => {
    failed.value = event.message
  })
  watchDebounced(
    [() => store.prices, () => store.estimate, () => store.scenario],
    ([prices, estimate, scenario]) => {
      if (prices !== sent)
        send({
          prices: {
            cards: new Map([...prices.cards].map(([name, card]) => [name, toRaw(card)])),
            uplifts: toRaw(prices.uplifts),
            rates: toRaw(prices.rates),
          },
        })
      sent = prices
      if (estimate) send({ number: ++number, estimate: toRaw(estimate), scenario: toRaw(scenario ?? null) })
    },
    { debounce: 180, immediate: true },
  )
  onScopeDispose(() => worker.terminate())
  return { sizes, assumptions, closers, simulated, drawn, failed }
}
