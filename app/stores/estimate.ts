import { defineStore } from 'pinia'
import { findBlindSpots, type BlindSpotFound } from '../../core/estimate/blind-spots'
import { findKind } from '../../core/estimate/components'
import { usualInputs, type ComponentKind } from '../../core/estimate/components/kind'
import { estimateSchema, type Component, type Estimate } from '../../core/estimate/estimate'
import { writeEstimate } from '../../core/estimate/estimate-file'
import { priceEstimate } from '../../core/estimate/price-estimate'
import type { Working } from '../../core/working/working'
import { rateCardSchema, type RateCard } from '../../core/ratecard/rate-card'
import type { ProblemDetails } from '../../shared/contracts/common'
import { estimateSaved, savedEstimate, type SavedEstimate } from '../../shared/contracts/estimates'

export const figureNames = { upfront: 'upfront', monthly: 'monthly', effectiveMonthly: 'effective monthly', firstYear: 'first 12 months', wholeTerm: 'whole term', breakEvenHours: 'break-even hours' } as const
export type FigureName = keyof typeof figureNames

const copy = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T

/** One estimate being worked on: its inputs, everything computed from them, undo without limit, and what is saved. */
export const useEstimate = defineStore('estimate', () => {
  const id = ref<string | null>(null)
  const saved = ref<Pick<SavedEstimate, 'version' | 'who' | 'savedAt'> | null>(null)
  const savedText = ref('')
  const estimate = ref<Estimate | null>(null)
  const card = shallowRef<RateCard | null>(null)
  const problem = ref<ProblemDetails | null>(null)
  const saving = ref(false)
  /** The amount whose Workings are open. */
  const explained = ref<{ component: string | null, way: string | null, figure: FigureName } | null>(null)
  const past = ref<Estimate[]>([])
  const future = ref<Estimate[]>([])

  const priced = computed(() => estimate.value && card.value ? priceEstimate(estimate.value, card.value) : null)
  const spots = computed(() => estimate.value ? findBlindSpots(estimate.value) : [])
  const unsaved = computed(() => estimate.value !== null && JSON.stringify(estimate.value) !== savedText.value)
  const parts = computed(() => [...new Set(estimate.value?.components.map(c => c.part) ?? [])])
  /** Inputs that nobody has set or agreed to. */
  const unconfirmed = computed(() => estimate.value?.components.flatMap(c => (findKind(c.kind)?.fields ?? []).filter(f => !c.confirmed.includes(f.name)).map(f => ({ component: c.id, field: f.name, label: f.label }))) ?? [])

  /** Workings of the amount that was asked about, as it is now. */
  const workings = computed((): { title: string, working: Working } | null => {
    if (!explained.value || !priced.value) return null
    const { component, way, figure } = explained.value
    if (component === null) return figure === 'breakEvenHours' ? null : { title: `Total, ${figureNames[figure]}`, working: priced.value.totalWorkings[figure] }
    const row = priced.value.components.find(c => c.id === component)
    const chosen = way === null ? row?.chosen : row?.ways.find(w => w.way === way)
    const working = chosen?.workings[figure]
    const kind = findKind(estimate.value?.components.find(c => c.id === component)?.kind ?? '')
    return chosen && working ? { title: `${kind?.label}, ${chosen.way}, ${figureNames[figure]}`, working } : null
  })

  async function loadCard(provider: string, date?: string) {
    card.value = await client.get(`rate-cards/${encodeURIComponent(provider)}${date ? `?date=${date}` : ''}`, rateCardSchema)
  }

  async function open(which: string) {
    problem.value = null
    estimate.value = null
    try {
      const found = await client.get(`estimates/${which}`, savedEstimate)
      await loadCard(found.estimate.provider, found.estimate.rateCardDate)
      take(found)
    }
    catch (error) {
      problem.value = problemOf(error)
    }
  }

  function take(found: SavedEstimate) {
    id.value = found.id
    saved.value = found
    estimate.value = found.estimate
    savedText.value = JSON.stringify(found.estimate)
    past.value = []
    future.value = []
    explained.value = null
  }

  /** Changes the estimate; one step of undo. */
  function change(edit: (estimate: Estimate) => void) {
    if (!estimate.value) return
    const before = copy(estimate.value)
    const next = copy(estimate.value)
    edit(next)
    if (JSON.stringify(next) === JSON.stringify(before)) return
    past.value.push(before)
    future.value = []
    estimate.value = next
  }
  function undo() {
    const before = past.value.pop()
    if (!before || !estimate.value) return
    future.value.push(copy(estimate.value))
    estimate.value = before
  }
  function redo() {
    const next = future.value.pop()
    if (!next || !estimate.value) return
    past.value.push(copy(estimate.value))
    estimate.value = next
  }

  async function save() {
    if (!estimate.value || !id.value || saving.value) return
    const checked = estimateSchema.safeParse(estimate.value)
    if (!checked.success) {
      problem.value = { type: '', status: 0, code: 'invalid', title: 'The estimate cannot be saved yet', detail: checked.error.issues.map(i => i.message).join('; ') }
      return
    }
    saving.value = true
    try {
      const text = JSON.stringify(estimate.value)
      const { version } = await client.send('PUT', `estimates/${id.value}`, { basedOn: saved.value?.version ?? null, estimate: estimate.value }, estimateSaved)
      saved.value = { version, who: useSession().who, savedAt: new Date().toISOString() }
      savedText.value = text
      problem.value = null
    }
    catch (error) {
      problem.value = problemOf(error)
    }
    finally {
      saving.value = false
    }
  }

  const newComponent = (kind: ComponentKind, part: string, inputs: Record<string, string> = {}): Component => ({
    id: crypto.randomUUID().slice(0, 8), part, kind: kind.kind, inputs: { ...usualInputs(kind, card.value!, estimate.value!.region), ...inputs }, confirmed: Object.keys(inputs),
  })
  function add(kind: ComponentKind, part = parts.value.at(-1) ?? 'Workload', inputs: Record<string, string> = {}): string {
    const component = newComponent(kind, part, inputs)
    change((next) => {
      const last = next.components.map(c => c.part).lastIndexOf(part)
      next.components.splice(last < 0 ? next.components.length : last + 1, 0, component)
    })
    return component.id
  }
  const addSpot = (spot: BlindSpotFound) => add(findKind(spot.add.kind)!, spot.add.part, spot.add.inputs)
  const dismiss = (spot: string, reason: string) => change((next) => {
    next.dismissed.push({ blindSpot: spot, reason })
  })
  const set = (component: string, field: string, value: string) => change((next) => {
    const row = next.components.find(c => c.id === component)
    if (!row) return
    row.inputs[field] = value
    if (!row.confirmed.includes(field)) row.confirmed.push(field)
  })
  const remove = (component: string) => change((next) => {
    next.components = next.components.filter(c => c.id !== component)
  })
  const duplicate = (component: string) => change((next) => {
    const at = next.components.findIndex(c => c.id === component)
    next.components.splice(at + 1, 0, { ...copy(next.components[at]!), id: crypto.randomUUID().slice(0, 8) })
  })
  const renamePart = (from: string, to: string) => to.trim() && change((next) => {
    for (const c of next.components) if (c.part === from) c.part = to.trim()
  })
  const confirmAll = () => change((next) => {
    for (const c of next.components) c.confirmed = (findKind(c.kind)?.fields ?? []).map(f => f.name)
  })
  /** The file that goes out; the same comes in again. */
  const json = () => writeEstimate(estimate.value!)

  return { explained, workings, id, saved, estimate, card, problem, saving, priced, spots, unsaved, parts, unconfirmed, past, future, loadCard, open, change, undo, redo, save, add, addSpot, dismiss, set, remove, duplicate, renamePart, confirmAll, json }
})
