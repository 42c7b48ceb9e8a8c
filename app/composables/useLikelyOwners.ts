import { shallowRef, watch, type Ref } from 'vue'
import { likelyOwners, type Beside, type LikelyOwner } from '../../core/allocation/drafting/likely-owners'
import type { AllocationPlan } from '../../core/allocation/plan'
import { COST_CENTRE } from '../../core/spend/dimension'
import { addMonths, monthEnd, monthStart } from '../../core/time/day'
import type { AllocationQuestion, UnallocatedGroup } from '../../shared/contracts/allocation'
import type { ProblemDetails } from '../../shared/contracts/common'
import { askAnswers, type Answered } from '../utils/ask-answers'
import { problemOf } from '../utils/client'

/** So many names of resources are looked for in the month before. */
const MOST_NAMES = 200

/** What the queue's groups are looked at in. */
export type QueueAsked = {
  groups: readonly UnallocatedGroup[]
  plan: AllocationPlan
  question: Pick<AllocationQuestion, 'month' | 'measure'>
  currency: string
}

/** Who most likely owns groups of the queue: by near spellings, neighbours in the account, and who bore the same names the month before. */
export function useLikelyOwners(asked: Ref<QueueAsked | null>) {
  /** In the order of the groups; empty until it is known. */
  const owners = shallowRef<LikelyOwner[][]>([])
  const problem = shallowRef<ProblemDetails | null>(null)
  let looking = new AbortController()
  watch(
    asked,
    async now => {
      looking.abort()
      owners.value = []
      problem.value = null
      if (!now?.groups.length) return
      const { signal } = (looking = new AbortController())
      try {
        const found = await look(now, signal)
        if (!signal.aborted) owners.value = found
      } catch (error) {
        if (!signal.aborted) problem.value = problemOf(error)
      }
    },
    { immediate: true },
  )
  return { owners, problem }
}

async function look({ groups, plan, question, currency }: QueueAsked, signal: AbortSignal): Promise<LikelyOwner[][]> {
  const of = (month: string) => ({
    measure: question.measure,
    grain: null,
    start: monthStart(month),
    end: monthEnd(month),
    basis: 'billing' as const,
  })
  const accounts = [...new Set(groups.flatMap(({ values }) => values.SubAccountName ?? []))]
  const [beside, ...named] = await askAnswers(
    [
      { ...of(question.month), splitBy: ['SubAccountName', COST_CENTRE], keep: { SubAccountName: accounts } },
      ...groups.map(({ values }) => ({
        ...of(question.month),
        ...{ splitBy: ['ResourceName'], limit: MOST_NAMES },
        keep: { ...Object.fromEntries(Object.entries(values).map(([dimension, value]) => [dimension, [value]])), [COST_CENTRE]: [null] },
      })),
    ],
    signal,
  )
  const names = named.map(answer => [...new Set(answer.rows.flatMap(({ values }) => values.ResourceName ?? []))])
  const known = names.filter(list => list.length > 0)
  const answers = known.length
    ? await askAnswers(
        known.map(list => ({ ...of(addMonths(question.month, -1)), splitBy: [COST_CENTRE], keep: { ResourceName: list } })),
        signal,
      )
    : []
  const before = new Map(known.map((list, at) => [list, answers[at]!]))
  const amounts = (answer: Answered, isMeant = (_: Answered['rows'][number]) => true): Beside =>
    answer.rows
      .filter(row => row.currency === currency && isMeant(row))
      .map(({ values, amount }) => ({ target: values[COST_CENTRE] ?? null, amount }))
  return groups.map((group, at) =>
    likelyOwners(group, plan, {
      neighbours: { SubAccountName: amounts(beside!, ({ values }) => values.SubAccountName === group.values.SubAccountName) },
      monthBefore: before.has(names[at]!) ? { names: names[at]!.length, amounts: amounts(before.get(names[at]!)!) } : null,
    }),
  )
}
