import { defineStore } from 'pinia'
import { groupConditions } from '../../core/allocation/drafting/group-conditions'
import { treeOf, withTree, type AllocationPlan, type CentreTree, type CostCentre, type Rule } from '../../core/allocation/plan'
import type { StatementPurpose } from '../../core/allocation/statements/month-statements'
import { borneOf } from '../../core/allocation/statement'
import { freeId } from '../../core/text/free-id'
import { rollUp, treeOrder } from '../../core/allocation/tree'
import { mainTotal } from '../../core/money/main-total'
import type { ProblemDetails } from '../../shared/contracts/common'
import {
  centreList,
  planSaved,
  planState,
  planVersions,
  settlement,
  type AllocationQuestion,
  type PlanState,
  type Settlement,
  type UnallocatedGroup,
} from '../../shared/contracts/allocation'
import { computed, ref, shallowRef, toRaw } from 'vue'
import { useClosings } from './closings'
import { useData } from './data'
import { useSession } from './session'
import { client, problemOf } from '../utils/client'
import { monthQuery } from '../utils/month-query'
import { planEdits } from '../utils/plan-edits'
import { keptDraft, problemOfPlan } from '../utils/rule-draft'

export const useAllocation = defineStore('allocation', () => {
  const session = useSession()
  const saved = ref<PlanState | null>(null)
  /** The cost centres of someone who sees a part of the company: the plan itself is not for them. */
  const seen = ref<CostCentre[] | null>(null)
  const months = useClosings()
  /** What is being changed; null while nothing is. */
  const draft = ref<AllocationPlan | null>(null)
  const question = ref<AllocationQuestion | null>(null)
  const settled = ref<Settlement | null>(null)
  const problem = ref<ProblemDetails | null>(null)
  /** Why the draft could not be saved. */
  const saveProblem = ref<ProblemDetails | null>(null)
  const loading = ref(false)
  const saving = ref(false)
  /** Nothing is loaded to begin with: not a failure. */
  const missing = ref(false)
  const editing = ref<string | null>(null)
  /** The draft as it could be used last; null where it never could. */
  let usable: AllocationPlan | null = null
  /** The version of the plan that the draft was begun on. */
  let basedOn = 0
  /** Whether the rules are to be read before they are shown next. */
  let isStale = true
  let asked = new AbortController()
  const history = shallowRef<(AllocationPlan | null)[]>([])
  /** Whether there is a step to go back. */
  const canUndo = computed(() => history.value.length > 0)
  /** Whether closed months are left to the rules that hold for them when the draft is saved. */
  const leavesClosed = ref(false)

  /** What keeps the draft from being used. */
  const planProblem = computed(() => draft.value && problemOfPlan(draft.value))
  /** What is changed: the draft, or the newest plan. */
  const newest = computed(() => draft.value ?? saved.value?.plan ?? null)
  /** Where a closed month is shown, how it was closed. */
  const closed = computed(() => settled.value?.closed ?? null)
  /** The plan that what is shown was settled by: of a closed month the one of then. */
  const whole = computed(() => (closed.value && !draft.value ? months.planOf(closed.value.version) : newest.value))
  /** The tree of it that is shown; null for the first. */
  const treeId = computed(() => question.value?.tree ?? null)
  const plan = computed(() => whole.value && treeOf(whole.value, treeId.value))
  /** Further trees over the same money. */
  const trees = computed(() => whole.value?.trees ?? [])
  const centres = computed(() => plan.value?.centres ?? seen.value ?? [])
  const tree = computed(() => treeOrder(centres.value))
  /** What is on the cost centres that are shown, by currency, the largest first. */
  const borne = computed(() => borneOf(settled.value?.statements ?? []))
  const currencies = computed(() => (plan.value ? (settled.value?.proof ?? []) : borne.value).map(one => one.currency))
  const rolledUp = (currency: string) => rollUp(centres.value, settled.value?.statements ?? [], currency)
  const targetName = (id: string) => centres.value.find(c => c.id === id)?.name ?? plan.value?.pools.find(p => p.id === id)?.name ?? id
  const isPool = (id: string) => plan.value?.pools.some(p => p.id === id) ?? false

  async function load(next: AllocationQuestion) {
    question.value = next
    // an older preview is given up, here and on the server
    asked.abort()
    const mine = (asked = new AbortController())
    loading.value = true
    try {
      await session.load()
      if (session.seesAll && isStale) {
        const { versions } = await client.get('allocation/versions', planVersions)
        saved.value = versions.length ? await client.get('allocation/plan', planState) : null
        basedOn = saved.value?.version ?? 0
        isStale = false
        takeUpDraft()
        missing.value = !saved.value && !draft.value
      }
      if (missing.value) return
      giveWay()
      next = question.value ?? next
      // further trees are for whoever sees the whole company
      if (!session.seesAll && next.tree !== undefined) question.value = next = { ...next, tree: undefined }
      if (!session.seesAll) seen.value ??= (await client.get('allocation/centres', centreList)).centres
      await months.load()
      // a tree that is only in a draft which cannot be used yet has no figures
      if (draft.value && !usable && saved.value && next.tree !== undefined && !treeOf(saved.value.plan, next.tree))
        question.value = next = { ...next, tree: undefined }
      const answer = usable
        ? await client.send('POST', 'allocation/preview', { plan: usable, ...next }, settlement, mine.signal)
        : await client.get(`allocation/settlement?${monthQuery(next)}`, settlement, mine.signal)
      if (session.seesAll && answer.closed) await months.learn(answer.closed.version)
      if (mine !== asked) return
      settled.value = answer
      problem.value = null
    } catch (error) {
      if (mine !== asked) return
      const failed = problemOf(error)
      if (failed.code === 'not-found' && !saved.value) missing.value = true
      else problem.value = failed
    } finally {
      if (mine === asked) loading.value = false
    }
  }

  /** What was read may be another's by now: it is read anew when it is looked at next. */
  function forget() {
    isStale = true
    seen.value = null
  }

  const again = () => question.value && load(question.value)

  /** Changes the draft and shows at once what every figure would be. */
  async function changePlan(edit: (plan: AllocationPlan) => void) {
    if (!newest.value) return
    const next = structuredClone(toRaw(newest.value))
    edit(next)
    await takeUp(next)
  }
  /** The same for the tree that is shown. */
  const change = (edit: (tree: CentreTree) => void) => changePlan(next => edit(treeOf(next, treeId.value)!))
  /** The plan with another tree in place of the one that is shown, for whoever asks what that would give. */
  const planWith = (tree: CentreTree): AllocationPlan => withTree(toRaw(newest.value!), treeId.value, tree)

  /** A further tree over the same money, with one cost centre. @returns its id. */
  async function addTree(): Promise<string> {
    const id = freeId(
      'new-tree',
      trees.value.map(tree => tree.id),
    )
    const top = { id: 'all', name: 'All of it', parent: null, owner: null }
    await changePlan(next => void (next.trees = [...(next.trees ?? []), { id, name: 'New tree', centres: [top], pools: [], rules: [] }]))
    return id
  }
  const renameTree = (name: string) =>
    changePlan(next => {
      const tree = next.trees?.find(({ id }) => id === treeId.value)
      if (tree) tree.name = name
    })
  const removeTree = () => changePlan(next => void (next.trees = next.trees?.filter(({ id }) => id !== treeId.value)))

  /** A plan as the draft, as a step that can be undone. */
  async function takeUp(next: AllocationPlan) {
    history.value = [...history.value, draft.value ? structuredClone(toRaw(draft.value)) : null]
    setDraft(next)
    if (!planProblem.value) await again()
  }

  /** Takes a draft, or none, and keeps it on this machine: it survives that the page is left. */
  function setDraft(next: AllocationPlan | null) {
    draft.value = next
    noteUsable()
    saveProblem.value = null
    keptDraft.keep(next && { basedOn, plan: next })
    giveWay()
  }

  /** While rules are being written, the draft cannot be used for a moment: its figures are those of before. */
  function noteUsable() {
    if (!draft.value) usable = null
    else if (!planProblem.value) usable = draft.value
  }

  /** A tree that is not there, or not any more, gives way to the first. */
  function giveWay() {
    if (whole.value && question.value?.tree !== undefined && !treeOf(whole.value, question.value.tree))
      question.value = { ...question.value, tree: undefined }
  }

  /** The draft that was left behind, on the version that it was begun on: if others have saved since, saving it says so. */
  function takeUpDraft() {
    const kept = keptDraft.read()
    if (!kept) return
    basedOn = kept.basedOn
    draft.value = kept.plan
    noteUsable()
  }

  async function undo() {
    if (!canUndo.value) return
    setDraft(history.value.at(-1)!)
    history.value = history.value.slice(0, -1)
    await again()
  }

  /** Lets the draft go; the rules are read anew, since others may have saved since. */
  async function discard() {
    setDraft(null)
    editing.value = null
    history.value = []
    leavesClosed.value = false
    isStale = true
    await again()
  }

  /** Begins with a first cost centre, where there is none. */
  async function start(name: string) {
    missing.value = false
    setDraft({ centres: [{ id: freeId(name, []), name, parent: null, owner: null }], pools: [], rules: [] })
    await again()
  }

  async function save() {
    if (!draft.value || planProblem.value) return
    saving.value = true
    try {
      const leaveClosed = leavesClosed.value || undefined
      await client.send('PUT', 'allocation/plan', { basedOn, plan: draft.value, leaveClosed }, planSaved)
      // what is shown stays what it is until it is shown anew
      saved.value = await client.get('allocation/plan', planState)
      await discard()
    } catch (error) {
      saveProblem.value = problemOf(error)
    } finally {
      saving.value = false
    }
  }

  /** Closes the month as it is shown. @param purpose what its statements are for. */
  async function closeMonth(purpose: StatementPurpose) {
    if (!settled.value || !question.value) return
    const failed = await months.close(question.value, purpose, settled.value)
    await again()
    problem.value ??= failed
  }

  const newId = () => `rule-${crypto.randomUUID().slice(0, 8)}`
  /** A rule that would catch a group of the queue and no other, placed last and opened: where it goes is for a person to choose. */
  const ruleFor = (group: UnallocatedGroup) =>
    edits.addRule({ id: newId(), conditions: groupConditions(group.values, settled.value!.unallocated), target: '' })
  /** Rules that put groups of the queue on their owners, placed last, as one step. */
  const acceptOwners = (accepted: readonly { group: UnallocatedGroup; target: string }[]) => {
    const all = settled.value!.unallocated
    const rules = accepted.map(({ group, target }) => ({ id: newId(), conditions: groupConditions(group.values, all), target }))
    return addRules(rules)
  }
  /** Rules placed last, as one step. */
  const addRules = (rules: readonly Rule[]) => change(next => void next.rules.push(...rules))
  const edits = planEdits({ change, newest: () => treeOf(toRaw(newest.value!), treeId.value)!, editing, newId })

  const caught = (rule: string, currency: string) => settled.value?.catches.find(c => c.rule === rule && c.currency === currency) ?? null
  const proofOf = (currency: string) => settled.value?.proof.find(p => p.currency === currency) ?? null
  const mainCurrency = computed(() => {
    const amounts = settled.value?.proof.length
      ? settled.value.proof.map(({ currency, bill }) => ({ currency, amount: bill }))
      : borne.value.map(({ currency, total }) => ({ currency, amount: total }))
    return mainTotal(amounts, useData().facts?.reportCurrency ?? null)?.currency ?? 'EUR'
  })

  return {
    saved,
    closed,
    closeMonth,
    draft,
    plan,
    whole,
    trees,
    treeId,
    planWith,
    addTree,
    renameTree,
    removeTree,
    centres,
    tree,
    question,
    settled,
    problem,
    planProblem,
    saveProblem,
    loading,
    saving,
    missing,
    editing,
    currencies,
    borne,
    mainCurrency,
    load,
    again,
    forget,
    takeUp,
    undo,
    discard,
    save,
    ruleFor,
    acceptOwners,
    addRules,
    start,
    ...edits,
    caught,
    proofOf,
    rolledUp,
    targetName,
    isPool,
    canUndo,
    leavesClosed,
  }
})
