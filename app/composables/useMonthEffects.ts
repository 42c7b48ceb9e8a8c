import { ref, shallowRef } from 'vue'
import { settlementEffects, type Effect } from '../../core/allocation/plan-difference'
import type { AllocationPlan } from '../../core/allocation/plan'
import { addMonths, monthOf } from '../../core/time/day'
import { closings as closingsReply, settlement, type AllocationQuestion, type Closings } from '../../shared/contracts/allocation'
import type { ProblemDetails } from '../../shared/contracts/common'
import { useData } from '../stores/data'
import { client, problemOf } from '../utils/client'

/**
 * What a plan that is not saved would move in each month with charges, found one month after the other, the newest first; of a closed month
 * it is what would be adjusted.
 */
export function useMonthEffects() {
  const effects = shallowRef<{ month: string; effects: Effect[] }[]>([])
  /** Months whose effect is not known yet; null while none was asked for. */
  const left = ref<number | null>(null)
  /** Which of the months are closed. */
  const closings = ref<Closings>({ closed: [], firstOpen: null })
  const problem = ref<ProblemDetails | null>(null)
  let looking = new AbortController()

  /** An older look is given up. */
  async function look(plan: AllocationPlan, measure: AllocationQuestion['measure']) {
    stop()
    const { signal } = (looking = new AbortController())
    const { firstDay, lastDay } = useData().facts ?? {}
    const months: string[] = []
    if (firstDay && lastDay) for (let month = monthOf(lastDay); month >= monthOf(firstDay); month = addMonths(month, -1)) months.push(month)
    left.value = months.length
    try {
      closings.value = await client.get('allocation/closings', closingsReply, signal)
      for (const month of months) {
        const asked: AllocationQuestion = { month, measure }
        const [before, after] = await Promise.all([
          client.get(`allocation/settlement?${new URLSearchParams({ ...asked, as: 'today' })}`, settlement, signal),
          client.send('POST', 'allocation/preview', { plan, ...asked }, settlement, signal),
        ])
        if (signal.aborted) return
        effects.value = [...effects.value, { month, effects: settlementEffects(before, after) }]
        left.value--
      }
    } catch (error) {
      if (!signal.aborted) problem.value = problemOf(error)
    }
  }

  function stop() {
    looking.abort()
    effects.value = []
    left.value = null
    problem.value = null
  }

  return { effects, left, closings, problem, look, stop }
}
