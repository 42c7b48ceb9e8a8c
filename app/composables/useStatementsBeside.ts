import { shallowRef, watch, type Ref } from 'vue'
import { statementsBeside, type AllocationQuestion, type StatementsBeside } from '../../shared/contracts/allocation'
import type { ProblemDetails } from '../../shared/contracts/common'
import { client, problemOf } from '../utils/client'
import { monthQuery } from '../utils/month-query'

/** What stands beside the statements of a month: the month before, and what one of a business measure costs; null until it is known. */
export function useStatementsBeside(question: Ref<Omit<AllocationQuestion, 'as'> | null>) {
  const beside = shallowRef<StatementsBeside | null>(null)
  const problem = shallowRef<ProblemDetails | null>(null)
  let looking = new AbortController()
  watch(
    () => JSON.stringify(question.value),
    async () => {
      looking.abort()
      const { signal } = (looking = new AbortController())
      beside.value = null
      problem.value = null
      if (!question.value) return
      try {
        const found = await client.get(`allocation/beside?${monthQuery(question.value)}`, statementsBeside, signal)
        if (!signal.aborted) beside.value = found
      } catch (error) {
        if (!signal.aborted) problem.value = problemOf(error)
      }
    },
    { immediate: true },
  )
  return { beside, problem }
}
