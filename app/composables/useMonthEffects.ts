import { ref, shallowRef, type UnwrapNestedRefs } from 'vue'
import { settlementEffects, type Effect } from '../../core/allocation/plan-difference'
import {
  closings as closingsReply,
  movedCharges,
  settlement,
  type AllocationQuestion,
  type Closings,
  type MovedCharges,
  type PlanPreview,
} from '../../shared/contracts/allocation'
import type { ProblemDetails } from '../../shared/contracts/common'
import { useData } from '../stores/data'
import { client, problemOf } from '../utils/client'
import { monthQuery } from '../utils/month-query'

/** What is not saved yet: a plan, or lookups or business measures in place of those of their names. */
export type NotSaved = Pick<PlanPreview, 'plan' | 'lookups' | 'measures'>

/** Looking at what something not saved moves, as a page has it. */
export type MonthsLooked = UnwrapNestedRefs<ReturnType<typeof useMonthEffects>>

/**
 * What something that is not saved would move in each month with charges, found one month after the other, the newest first; of a closed
 * month it is what would be adjusted.
 */
export function useMonthEffects() {
  const effects = shallowRef<{ month: string; effects: Effect[] }[]>([])
  /** Months whose effect is not known yet; null while none was asked for. */
  const left = ref<number | null>(null)
  /** Which of the months are closed. */
  const closings = ref<Closings>({ closed: [], firstOpen: null })
  /** The charges that move in the month that was asked for. */
  const moved = shallowRef<(MovedCharges & { month: string }) | null>(null)
  const problem = ref<ProblemDetails | null>(null)
  let looking = new AbortController()
  let asked: { changed: NotSaved; question: Pick<AllocationQuestion, 'measure' | 'tree'> } | null = null

  /** An older look is given up. */
  async function look(changed: NotSaved, question: Pick<AllocationQuestion, 'measure' | 'tree'>) {
    stop()
    asked = { changed, question }
    const { signal } = (looking = new AbortController())
    const { months } = useData()
    left.value = months.length || null // nothing is loaded: nothing moves
    try {
      closings.value = await client.get('allocation/closings', closingsReply, signal)
      for (const month of months) {
        const of: AllocationQuestion = { ...question, month, uplifts: 'none' }
        const [before, after] = await Promise.all([
          client.get(`allocation/settlement?${monthQuery({ ...of, as: 'today' })}`, settlement, signal),
          client.send('POST', 'allocation/preview', { ...changed, ...of }, settlement, signal),
        ])
        if (signal.aborted) return
        effects.value = [...effects.value, { month, effects: settlementEffects(before, after) }]
        left.value = months.length - effects.value.length
      }
    } catch (error) {
      if (!signal.aborted) problem.value = problemOf(error)
    }
  }

  /** Which charges move in a month; again, and they are hidden. */
  async function lookAtCharges(month: string) {
    if (!asked) return
    if (moved.value?.month === month) {
      moved.value = null
      return
    }
    const { signal } = looking
    const { plan, lookups } = asked.changed
    try {
      const body = { ...asked.question, month, ...(plan && { plan }), ...(lookups && { lookups }) }
      const found = await client.send('POST', 'allocation/moved', body, movedCharges, signal)
      if (!signal.aborted) moved.value = { ...found, month }
    } catch (error) {
      if (!signal.aborted) problem.value = problemOf(error)
    }
  }

  function stop() {
    looking.abort()
    asked = null
    effects.value = []
    moved.value = null
    left.value = null
    problem.value = null
  }

  return { effects, left, closings, moved, problem, look, lookAtCharges, stop }
}
