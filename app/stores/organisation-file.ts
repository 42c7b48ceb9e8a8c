import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { isSamePlan, listDifference, planDifference, type ListDifference, type PlanDifference } from '../../core/allocation/plan-difference'
import type { AllocationPlan } from '../../core/allocation/plan'
import {
  organisation,
  organisationLoaded,
  organisationState,
  type Organisation,
  type OrganisationState,
} from '../../shared/contracts/reference-data'
import { client, problemOf, refusal } from '../utils/client'
import type { ProblemDetails } from '../../shared/contracts/common'
import { saveFile } from '../utils/save-file'
import { useMonthEffects } from '../composables/useMonthEffects'
import { useAllocation } from './allocation'
import { useSession } from './session'

/** Wrong places of a file that are named one by one. */
const MOST_NAMED = 20

/** Cost centres that there are. */
type Current = OrganisationState & { plan: AllocationPlan }
type Review = { name: string; file: Organisation; current: Current; people: ListDifference; plan: PlanDifference }

/** A file of people, cost centres and rules: what it would change, and what would move in each month, before it is taken. */
export const useOrganisationFile = defineStore('organisation-file', () => {
  const review = shallowRef<Review | null>(null)
  /** What would move, by month. */
  const months = useMonthEffects()
  const problem = ref<ProblemDetails | null>(null)
  const busy = ref(false)
  /** Whether closed months are left to the rules that hold for them. */
  const leavesClosed = ref(false)
  const isSame = computed(() => {
    if (!review.value) return false
    const { people, plan } = review.value
    return isSamePlan(plan) && !people.added.length && !people.changed.length && !people.removed.length
  })

  /**
   * Receives a file. Into an empty company it is taken at once; else it is held against what is there, for someone to decide.
   * @returns what is said of it when it was taken; null where it waits.
   */
  async function receive(name: string, text: string): Promise<string | null> {
    const file = read(name, text)
    const { plan, ...current } = await client.get('organisation', organisationState)
    if (!plan) return send(file)
    hold(name, file, { ...current, plan })
    return null
  }

  function hold(name: string, file: Organisation, current: Current) {
    const people = listDifference(current.people, file.people, person => person.name)
    review.value = { name, file, current, people, plan: planDifference(current.plan, file.plan) }
    problem.value = null
    if (isSamePlan(review.value.plan)) months.stop()
    else void months.look(file.plan, 'effectiveCost')
  }

  async function send(file: Organisation): Promise<string> {
    const { people, centres, rules } = await client.send('POST', 'organisation', file, organisationLoaded)
    await useSession().again()
    useAllocation().forget()
    return `${people} people, ${centres} cost centres, ${rules} rules`
  }

  /** Takes what was reviewed in place of what it was held against. @returns what is said of it; null where it could not be taken. */
  async function take(): Promise<string | null> {
    if (!review.value) return null
    const { file, current } = review.value
    busy.value = true
    try {
      const said = await send({ ...file, basedOn: current.version, leaveClosed: leavesClosed.value || undefined })
      leave()
      return said
    } catch (error) {
      problem.value = problemOf(error)
      return null
    } finally {
      busy.value = false
    }
  }

  /** Holds the file against what has been saved meanwhile. */
  async function again() {
    if (!review.value) return
    try {
      const { plan, ...current } = await client.get('organisation', organisationState)
      if (plan) hold(review.value.name, review.value.file, { ...current, plan })
    } catch (error) {
      problem.value = problemOf(error)
    }
  }

  /** People, cost centres and rules as a file that can be dropped again. */
  async function download() {
    try {
      const { people, plan } = await client.get('organisation', organisationState)
      saveFile(new Blob([`${JSON.stringify({ people, plan }, null, 2)}\n`], { type: 'application/json' }), 'cost-centres.json')
    } catch (error) {
      problem.value = problemOf(error)
    }
  }

  function leave() {
    months.stop()
    leavesClosed.value = false
    review.value = null
    problem.value = null
  }

  return { review, months, problem, busy, leavesClosed, isSame, receive, take, again, leave, download }
})

/** @throws RequestFailed that names each wrong place, by its list, its number and what is wrong. */
function read(name: string, text: string): Organisation {
  let value: unknown
  try {
    value = JSON.parse(text)
  } catch {
    throw refusal(`«${name}» was not taken`, 'It is not a JSON document.')
  }
  const checked = organisation.safeParse(value)
  if (checked.success) return checked.data
  const { issues } = checked.error
  const named = issues.slice(0, MOST_NAMED).map(({ path, message }) => `${placeText(path)}: ${message}`)
  const more = issues.length > MOST_NAMED ? ` … and ${issues.length - MOST_NAMED} more` : ''
  throw refusal(`«${name}» was not taken`, `${named.join('; ')}${more}. Nothing of it was taken.`)
}

/** Where something stands in the file: `plan, rules 3, target`. */
const placeText = (path: readonly PropertyKey[]) =>
  path.reduce<string>((said, part) => {
    if (typeof part === 'number') return `${said} ${part + 1}`
    return said ? `${said}, ${String(part)}` : String(part)
  }, '') || 'the file'
