import { shallowRef, watch, type Ref } from 'vue'
import { likelyOwners, type Beside, type LikelyOwner } from '../../core/allocation/drafting/likely-owners'
import type { CentreTree } from '../../core/allocation/plan'
import { centreDimension, CONTAINER_COLUMN, CREATED_BY_COLUMN } from '../../core/spend/dimension'
import { addMonths, monthEnd, monthStart } from '../../core/time/day'
import type { AllocationQuestion, UnallocatedGroup } from '../../shared/contracts/allocation'
import { makers as makersReply } from '../../shared/contracts/resources'
import type { ProblemDetails } from '../../shared/contracts/common'
import { askAnswers, type Answered } from '../utils/ask-answers'
import { client, problemOf } from '../utils/client'

/** So many names of resources are looked for in the month before. */
const MOST_NAMES = 200

/** What the queue's groups are looked at in. */
export type QueueAsked = {
  groups: readonly UnallocatedGroup[]
  tree: CentreTree
  question: Pick<AllocationQuestion, 'month' | 'measure' | 'tree'>
  currency: string
}

/**
 * Who most likely owns groups of the queue: by near spellings, neighbours in the account, who bore the same names the month before, who
 * made them, and what they belong to.
 */
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

type Lists = [string[][], string[][], string[][], string[][]]

async function look({ groups, tree, question, currency }: QueueAsked, signal: AbortSignal): Promise<LikelyOwner[][]> {
  const centre = centreDimension(question.tree ?? null)
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
      { ...of(question.month), splitBy: ['SubAccountName', centre], keep: { SubAccountName: accounts } },
      ...groups.map(({ values }) => ({
        ...of(question.month),
        ...{ splitBy: ['ResourceName', 'ResourceId', CREATED_BY_COLUMN, CONTAINER_COLUMN], limit: MOST_NAMES },
        keep: { ...Object.fromEntries(Object.entries(values).map(([dimension, value]) => [dimension, [value]])), [centre]: [null] },
      })),
    ],
    signal,
  )
  const valuesOf = (dimension: string) => named.map(answer => [...new Set(answer.rows.flatMap(({ values }) => values[dimension] ?? []))])
  const [names, resources, parents, containers] = ['ResourceName', 'ResourceId', CREATED_BY_COLUMN, CONTAINER_COLUMN].map(valuesOf) as Lists
  const ids = [...new Set(resources.flat())]
  const { makers } = ids.length ? await client.send('POST', 'resources/makers', { ids }, makersReply, signal) : { makers: [] }
  // each list is asked about once: names of the month before, and resources of this one
  const asked = [
    ...names.map(ResourceName => ({ month: addMonths(question.month, -1), keep: { ResourceName } })),
    ...parents.map(ResourceId => ({ month: question.month, keep: { ResourceId } })),
    ...containers.map(paths => ({ month: question.month, keep: { [CONTAINER_COLUMN]: paths } })),
    ...makers.map(({ others: ResourceId }) => ({ month: question.month, keep: { ResourceId } })),
  ].filter(({ keep }) => Object.values(keep)[0]!.length > 0)
  const answers = asked.length
    ? await askAnswers(
        asked.map(({ month, keep }) => ({ ...of(month), splitBy: [centre], keep })),
        signal,
      )
    : []
  const found = new Map(asked.map(({ keep }, at) => [Object.values(keep)[0]!, answers[at]!]))
  const amounts = (answer: Answered, isMeant = (_: Answered['rows'][number]) => true): Beside =>
    answer.rows
      .filter(row => row.currency === currency && isMeant(row))
      .map(({ values, amount }) => ({ target: values[centre] ?? null, amount }))
  return groups.map((group, at) => {
    const own = new Set(resources[at])
    const byMaker = makers.flatMap(({ by, ids, others }) => {
      const made = ids.filter(id => own.has(id)).length
      return made && found.has(others) ? [{ by, made, amounts: amounts(found.get(others)!) }] : []
    })
    return likelyOwners(group, tree, {
      neighbours: { SubAccountName: amounts(beside!, ({ values }) => values.SubAccountName === group.values.SubAccountName) },
      monthBefore: found.has(names[at]!) ? { names: names[at]!.length, amounts: amounts(found.get(names[at]!)!) } : null,
      attached: found.has(parents[at]!) ? { to: parents[at]!.length, amounts: amounts(found.get(parents[at]!)!) } : null,
      containers: found.has(containers[at]!) ? { paths: containers[at]!, amounts: amounts(found.get(containers[at]!)!) } : null,
      makers: byMaker,
    })
  })
}
