import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import type { AllocationPlan } from '../../core/allocation/plan'
import type { StatementPurpose } from '../../core/allocation/statements/month-statements'
import {
  closedState,
  closings,
  planState,
  type AllocationQuestion,
  type Closings,
  type Settlement,
} from '../../shared/contracts/allocation'
import type { ProblemDetails } from '../../shared/contracts/common'
import { client, problemOf } from '../utils/client'

/** Which months are closed, the plans of then, and how one is closed. */
export const useClosings = defineStore('closings', () => {
  const closed = ref<Closings['closed']>([])
  /** The first month that is not; null before one is closed. */
  const firstOpen = ref<string | null>(null)
  const busy = ref(false)
  /** Plans of before, by their version. */
  const plans = shallowRef(new Map<number, AllocationPlan>())

  async function load() {
    const now = await client.get('allocation/closings', closings)
    closed.value = now.closed
    firstOpen.value = now.firstOpen
  }

  /** Reads a version of the plan, once. */
  async function learn(version: number) {
    if (plans.value.has(version)) return
    const { plan } = await client.get(`allocation/plan?version=${version}`, planState)
    plans.value = new Map(plans.value).set(version, plan)
  }
  const planOf = (version: number) => plans.value.get(version) ?? null
  /** How a month was closed; null while it is open. */
  const stateOf = (month: string) => closed.value.find(one => one.month === month) ?? null

  /** Closes a month as it was looked at. @returns why it could not be closed; null where it was. */
  async function close(
    { month, measure }: Pick<AllocationQuestion, 'month' | 'measure'>,
    purpose: StatementPurpose,
    { revision, version, basis }: Pick<Settlement, 'revision' | 'version' | 'basis'>,
  ): Promise<ProblemDetails | null> {
    busy.value = true
    try {
      await client.send('POST', 'allocation/closings', { month, measure, revision, version, basis, purpose }, closedState)
      return null
    } catch (error) {
      return problemOf(error)
    } finally {
      busy.value = false
    }
  }

  return { closed, firstOpen, busy, load, learn, planOf, stateOf, close }
})
