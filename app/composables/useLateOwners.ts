import { shallowRef, watch, type Ref } from 'vue'
import { lateOwners, type LateOwner } from '../../core/allocation/drafting/late-owners'
import { centreDimension } from '../../core/spend/dimension'
import { addDays, monthEnd, monthStart } from '../../core/time/day'
import type { AllocationQuestion } from '../../shared/contracts/allocation'
import type { ProblemDetails } from '../../shared/contracts/common'
import { useData } from '../stores/data'
import { askAnswers } from '../utils/ask-answers'
import { problemOf } from '../utils/client'

/** So many resources of a month, those that cost most, are looked for later on. */
const MOST_RESOURCES = 1000

/** Resources on nobody in a month, in a currency, that are on somebody since: what tells whose they are was said later. */
export function useLateOwners(asked: Ref<{ question: AllocationQuestion; currency: string } | null>) {
  const owners = shallowRef<LateOwner[]>([])
  const problem = shallowRef<ProblemDetails | null>(null)
  let looking = new AbortController()
  watch(
    () => JSON.stringify(asked.value),
    async () => {
      looking.abort()
      owners.value = []
      problem.value = null
      const { signal } = (looking = new AbortController())
      if (!asked.value) return
      try {
        const found = await look(asked.value.question, asked.value.currency, signal)
        if (!signal.aborted) owners.value = found
      } catch (error) {
        if (!signal.aborted) problem.value = problemOf(error)
      }
    },
    { immediate: true },
  )
  return { owners, problem }
}

async function look({ month, measure, tree }: AllocationQuestion, currency: string, signal: AbortSignal): Promise<LateOwner[]> {
  const last = useData().facts?.lastDay
  if (!last) return []
  const centre = centreDimension(tree ?? null)
  const of = { measure, grain: null, basis: 'billing' as const, start: monthStart(month) }
  const [unowned] = await askAnswers(
    [
      {
        ...of,
        end: monthEnd(month),
        splitBy: ['ResourceId'],
        keep: { [centre]: [null] },
        leaveOut: { ResourceId: [null] },
        limit: MOST_RESOURCES,
      },
    ],
    signal,
  )
  const rows = unowned!.rows.filter(row => row.currency === currency)
  if (!rows.length) return []
  const end = [addDays(last, 1), monthEnd(month)].sort().at(-1)!
  const keep = { ResourceId: rows.map(({ values }) => values.ResourceId!) }
  const [owned] = await askAnswers([{ ...of, end, splitBy: ['ResourceId', centre], keep, leaveOut: { [centre]: [null] } }], signal)
  return lateOwners(
    rows.map(({ values, amount }) => ({ resource: values.ResourceId ?? null, amount })),
    owned!.rows.map(({ values }) => ({ resource: values.ResourceId ?? null, target: values[centre] ?? null })),
  )
}
