import Papa from 'papaparse'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { isSamePlan, listDifference, planDifference, type ListDifference, type PlanDifference } from '../../core/allocation/plan-difference'
import type { AllocationPlan } from '../../core/allocation/plan'
import { centreTable, readCentreTable } from '../../core/allocation/tables/centre-table'
import { withTable } from '../../core/allocation/tables/plan-parts'
import { readRuleTable, ruleTable } from '../../core/allocation/tables/rule-table'
import { manyOf } from '../../core/text/many-of'
import {
  organisation,
  organisationLoaded,
  organisationState,
  type Organisation,
  type OrganisationState,
} from '../../shared/contracts/reference-data'
import { client, refusal } from '../utils/client'
import { jsonOf, linesSaid, namedSome, placeText, tableOf } from '../utils/dropped-file'
import { saveFile } from '../utils/save-file'
import { useAttempt } from '../composables/useAttempt'
import { useMonthEffects } from '../composables/useMonthEffects'
import { useAllocation } from './allocation'
import { useSession } from './session'

const noPlan: AllocationPlan = { centres: [], pools: [], rules: [] }
/** Cost centres that there are. */
type Current = OrganisationState & { plan: AllocationPlan }
type Review = { name: string; file: Organisation; current: Current; people: ListDifference; plan: PlanDifference }

/** A file of people, cost centres and rules: what it would change, and what would move in each month, before it is taken. */
export const useOrganisationFile = defineStore('organisation-file', () => {
  const review = shallowRef<Review | null>(null)
  /** What would move, by month. */
  const months = useMonthEffects()
  const { attempt, problem, busy } = useAttempt()
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
    mayReceive(name)
    const { plan, ...current } = await client.get('organisation', organisationState)
    if (!plan) return send(file)
    hold(name, file, { ...current, plan })
    return null
  }

  /** Receives a table of cost centres or of rules: in place of those that there are, people and pools stay. */
  async function receiveTable(which: 'centres' | 'rules', name: string, text: string): Promise<string | null> {
    const { parts, wrong } = which === 'centres' ? readCentreTable(tableOf(name, text)) : readRuleTable(tableOf(name, text))
    if (!parts) throw refusal(`«${name}» was not taken`, linesSaid(wrong))
    mayReceive(name)
    const { plan, ...current } = await client.get('organisation', organisationState)
    if (!plan && which === 'rules')
      throw refusal(`«${name}» was not taken`, 'There are no cost centres yet that rules could put charges on: drop those first.')
    const read = withTable(plan ?? noPlan, which, parts)
    if (!read.plan) throw refusal(`«${name}» was not taken`, linesSaid(read.wrong))
    const file = { people: current.people, plan: read.plan }
    if (!plan) return send(file)
    hold(name, file, { ...current, plan })
    return null
  }

  /** One file at a time is decided: another would take its place unseen. */
  function mayReceive(name: string) {
    if (review.value)
      throw refusal(`«${name}» was not taken`, `«${review.value.name}» waits to be decided: use or discard it, then drop this one again.`)
  }

  function hold(name: string, file: Organisation, current: Current) {
    const people = listDifference(current.people, file.people, person => person.name)
    review.value = { name, file, current, people, plan: planDifference(current.plan, file.plan) }
    problem.value = null
    if (isSamePlan(review.value.plan)) months.stop()
    else void months.look({ plan: file.plan }, { measure: 'effectiveCost' })
  }

  async function send(file: Organisation): Promise<string> {
    const { people, centres, rules } = await client.send('POST', 'organisation', file, organisationLoaded)
    await useSession().again()
    useAllocation().forget()
    return [manyOf(people, 'person', 'people'), manyOf(centres, 'cost centre'), manyOf(rules, 'rule')].join(', ')
  }

  /** Takes what was reviewed in place of what it was held against. @returns what is said of it; null where it could not be taken. */
  async function take(): Promise<string | null> {
    if (!review.value) return null
    const { file, current } = review.value
    let said: string | null = null
    await attempt(async () => {
      said = await send({ ...file, basedOn: current.version, leaveClosed: leavesClosed.value || undefined })
    })
    if (said !== null) leave()
    return said
  }

  /** Holds the file against what has been saved meanwhile. */
  const again = () =>
    attempt(async () => {
      if (!review.value) return
      const { plan, ...current } = await client.get('organisation', organisationState)
      if (plan) hold(review.value.name, review.value.file, { ...current, plan })
    })

  /** People, cost centres and rules as a file that can be dropped again. */
  const download = () =>
    attempt(async () => {
      const { people, plan } = await client.get('organisation', organisationState)
      saveFile(new Blob([`${JSON.stringify({ people, plan }, null, 2)}\n`], { type: 'application/json' }), 'cost-centres.json')
    })

  /** Cost centres, or rules, as a table that can be dropped again. */
  const downloadTable = (which: 'centres' | 'rules') =>
    attempt(async () => {
      const { plan } = await client.get('organisation', organisationState)
      if (!plan) return
      const { heads, rows } = which === 'centres' ? centreTable(plan) : ruleTable(plan)
      const text = Papa.unparse({ fields: heads, data: rows }, { newline: '\n' })
      saveFile(new Blob([`${text}\n`], { type: 'text/csv' }), which === 'centres' ? 'cost-centres.csv' : 'rules.csv')
    })

  function leave() {
    months.stop()
    leavesClosed.value = false
    review.value = null
    problem.value = null
  }

  return { review, months, problem, busy, leavesClosed, isSame, receive, receiveTable, take, again, leave, download, downloadTable }
})

/** @throws RequestFailed that names each wrong place, by its list, its number and what is wrong. */
function read(name: string, text: string): Organisation {
  const checked = organisation.safeParse(jsonOf(name, text))
  if (checked.success) return checked.data
  throw refusal(`«${name}» was not taken`, namedSome(checked.error.issues.map(({ path, message }) => `${placeText(path)}: ${message}`)))
}
