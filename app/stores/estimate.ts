import { defineStore } from 'pinia'
import type { ReadLine } from '../../core/estimate/adding/read-line'
import { fillBlindSpot, findBlindSpots, type BlindSpotFound } from '../../core/estimate/blind-spots'
import { findKind, isOffered } from '../../core/estimate/components'
import { usualInputs, type ComponentKind } from '../../core/estimate/components/kind'
import { estimateSchema, newRow, type Component, type Estimate, type Scenario } from '../../core/estimate/estimate'
import { writeEstimate } from '../../core/estimate/documents/estimate-file'
import { nameCard as withCard, priceOnCard, type CardVersion } from '../../core/estimate/sheet/name-card'
import { findNotices, keptDuplicate, mergeRows } from '../../core/estimate/sheet/notices'
import { fillPattern, type Pattern } from '../../core/estimate/pattern'
import { rowInPart } from '../../core/estimate/sheet/row-name'
import { findPlace } from '../../core/estimate/pricing/place'
import { figureOf, figureWords, priceScenarios, type FigureName, type Prices } from '../../core/estimate/pricing/price-estimate'
import { PriceMemo } from '../../core/estimate/pricing/price-memo'
import { compareScenarios, type Comparison } from '../../core/estimate/scenarios/compare'
import { changeName } from '../../core/estimate/scenarios/change-name'
import type { Closer } from '../../core/estimate/scenarios/close-gap'
import { takeOver, type Change } from '../../core/estimate/scenarios/layer'
import { moveScenario, relocate, rowAt } from '../../core/estimate/scenarios/move'
import { keptText } from '../../core/estimate/sheet/typed-text'
import type { Working } from '../../core/working/working'
import { rateCardSchema, type RateCard } from '../../core/ratecard/rate-card'
import type { Rate } from '../../core/money/rates'
import type { StoredUplift } from '../../core/uplift/uplift-set'
import type { ProblemDetails } from '../../shared/contracts/common'
import { estimateSaved, patternList, savedEstimate, upliftList, type SavedEstimate } from '../../shared/contracts/estimates'
import { rateCardList, type RateCardEntry } from '../../shared/contracts/reference-data'
import { rateList } from '../../shared/contracts/spend-settings'

export type RowFigure = FigureName | 'breakEvenHours'
/**
 * An amount whose Workings are asked for: of a row (and one of its ways to pay), of a part, of a step from cost to total, or of the total.
 */
export type Explained =
  | { of: 'row'; component: string; way: string | null; figure: RowFigure }
  | { of: 'part'; part: string; figure: FigureName }
  | { of: 'step'; index: number; figure: FigureName }
  | { of: 'total'; figure: FigureName }

const newId = () => crypto.randomUUID().slice(0, 8)

/** One estimate being worked on: its inputs, everything computed from them, undo without limit, and what is saved. */
export const useEstimate = defineStore('estimate', () => {
  const id = ref<string | null>(null)
  const saved = shallowRef<SavedEstimate | null>(null)
  const estimate = shallowRef<Estimate | null>(null)
  const cards = shallowRef(new Map<string, RateCard>())
  const cardList = shallowRef<RateCardEntry[]>([])
  const uplifts = shallowRef<StoredUplift[]>([])
  /** The dated exchange rates of Sources. */
  const rates = shallowRef<Rate[]>([])
  const patterns = shallowRef<Pattern[]>([])
  const problem = ref<ProblemDetails | null>(null)
  /** Whether the problem is that someone else has saved meanwhile. */
  const overtaken = ref<SavedEstimate | null>(null)
  const saving = ref(false)
  const explained = ref<Explained | null>(null)
  const past = shallowRef<Estimate[]>([])
  const future = shallowRef<Estimate[]>([])
  /** The scenario that is being looked at and edited; null for the estimate as it stands. */
  const scenarioId = ref<string | null>(null)
  let memo = new PriceMemo()
  /** Bodies of the versions that were on the screen: undo may go back to one. */
  const bodies = new Map<string, RateCard>()

  const prices = computed((): Prices => ({ cards: cards.value, uplifts: uplifts.value, rates: rates.value }))
  const columns = computed(() => (estimate.value ? priceScenarios(estimate.value, prices.value, memo) : []))
  const base = computed(() => columns.value[0] ?? null)
  const scenario = computed(() => estimate.value?.scenarios.find(s => s.id === scenarioId.value) ?? null)
  /** The column that the sheet shows its inputs of. */
  const priced = computed(() => columns.value.find(c => c.scenario === scenarioId.value) ?? base.value)
  const currency = computed(() => base.value?.currency ?? 'EUR')
  /** How each scenario differs from the first, over the rows that both can price. */
  const differences = (name: FigureName): Map<string, Comparison> =>
    new Map(
      columns.value
        .slice(1)
        .map(other => [other.scenario!, compareScenarios(estimate.value!, prices.value, base.value!, other, name, memo)]),
    )
  const spots = computed(() => (estimate.value && base.value ? findBlindSpots({ estimate: estimate.value, priced: base.value }) : []))
  const notices = computed(() => (estimate.value && priced.value ? findNotices(estimate.value, priced.value) : []))
  const unsaved = computed(
    () =>
      estimate.value !== null &&
      estimate.value !== saved.value?.estimate &&
      JSON.stringify(estimate.value) !== JSON.stringify(saved.value?.estimate),
  )
  const parts = computed(() => [...new Set(estimate.value?.components.map(c => c.part) ?? [])])
  const card = computed(() => cards.value.get(estimate.value?.provider ?? '') ?? null)
  /** Newer versions of the cards that it is priced on. */
  const newerCards = computed(
    () =>
      estimate.value?.cards.flatMap(({ provider, date, revision }) =>
        cardList.value.filter(c => c.provider === provider && isNewer(c, { date, revision })).slice(0, 1),
      ) ?? [],
  )

  const byId = computed(() => new Map(estimate.value?.components.map(c => [c.id, c]) ?? []))

  /** Workings of the amount that was asked about, as it is now. */
  const workings = computed((): { title: string; working: Working; unit: string } | null => {
    const asked = explained.value
    if (!asked || !priced.value || !estimate.value) return null
    const unit = asked.figure === 'breakEvenHours' ? 'h' : currency.value
    if (asked.of === 'total') return { title: `Total, ${figureWords[asked.figure]}`, working: priced.value.total[asked.figure], unit }
    if (asked.of === 'step') {
      const step = priced.value.steps[asked.index]
      return step ? { title: `${step.label}, ${figureWords[asked.figure]}`, working: step.figures[asked.figure], unit } : null
    }
    if (asked.of === 'part') {
      const rows = priced.value.rows.filter(row => priced.value!.counted.has(row.id) && byId.value.get(row.id)?.part === asked.part)
      return {
        title: `${asked.part || 'rows'}, ${figureWords[asked.figure]}`,
        working: {
          op: 'sum',
          label: asked.part || 'rows',
          parts: rows.map(row => figureOf(row.chosen!, asked.figure, priced.value!.termYears)),
        },
        unit,
      }
    }
    const row = priced.value.byId.get(asked.component)
    const way = asked.way === null ? row?.chosen : row?.ways.find(w => [w.way, w.commits].filter(Boolean).join(', ') === asked.way)
    if (!row || !way) return null
    const working =
      asked.figure === 'breakEvenHours'
        ? way.breakEvenHours
        : asked.way === null
          ? figureOf(way, asked.figure, priced.value.termYears)
          : way[asked.figure]
    return working
      ? {
          title: `${byId.value.has(row.id) ? rowInPart(byId.value.get(row.id)!) : row.kind?.label}, ${way.way}, ${asked.figure === 'breakEvenHours' ? 'break-even hours' : figureWords[asked.figure]}`,
          working,
          unit,
        }
      : null
  })

  const loadCard = (card: CardVersion) => client.get(cardPath(card), rateCardSchema)
  async function loadCards(of: Pick<Estimate, 'cards'>) {
    const loaded = await Promise.all(of.cards.map(loadCard))
    loaded.forEach((body, i) => bodies.set(keyOfCard(of.cards[i]!), body))
    cards.value = new Map(loaded.map(c => [c.provider, c]))
  }

  async function open(which: string) {
    problem.value = null
    overtaken.value = null
    estimate.value = null
    try {
      const [found, list, own, patternsFound, ratesFound] = await Promise.all([
        client.get(`estimates/${which}`, savedEstimate),
        client.get('rate-cards', rateCardList),
        client.get('uplifts', upliftList),
        client.get('patterns', patternList),
        client.get('rates', rateList),
      ])
      await loadCards(found.estimate)
      cardList.value = list.cards
      uplifts.value = own.uplifts
      rates.value = ratesFound.rates
      patterns.value = patternsFound.patterns.map(p => p.pattern)
      take(found)
    } catch (error) {
      problem.value = problemOf(error)
    }
  }

  function take(found: SavedEstimate) {
    memo = new PriceMemo()
    id.value = found.id
    saved.value = found
    estimate.value = found.estimate
    past.value = []
    future.value = []
    explained.value = null
    scenarioId.value = null
    overtaken.value = null
  }

  /** Changes the estimate, leaving what does not change as it is: what is the same is not priced again. One step of undo. */
  function change(edit: (estimate: Estimate) => Estimate) {
    if (!estimate.value) return
    const next = edit(estimate.value)
    if (next === estimate.value) return
    past.value = [...past.value, estimate.value]
    future.value = []
    estimate.value = next
    if (scenarioId.value && !next.scenarios.some(s => s.id === scenarioId.value)) scenarioId.value = null
  }
  const patch = (values: Partial<Estimate>) => change(e => ({ ...e, ...values }))
  function undo() {
    const before = past.value.at(-1)
    if (!before || !estimate.value) return
    future.value = [...future.value, estimate.value]
    past.value = past.value.slice(0, -1)
    estimate.value = before
    if (scenarioId.value && !before.scenarios.some(s => s.id === scenarioId.value)) scenarioId.value = null
  }
  function redo() {
    const next = future.value.at(-1)
    if (!next || !estimate.value) return
    past.value = [...past.value, estimate.value]
    future.value = future.value.slice(0, -1)
    estimate.value = next
  }

  /** Saves what is on the screen. @param name makes it a version to come back to. */
  async function save(name: string | null = null): Promise<boolean> {
    if (!estimate.value || !id.value || saving.value) return false
    const checked = estimateSchema.safeParse(estimate.value)
    if (!checked.success) {
      problem.value = {
        type: '',
        status: 0,
        code: 'invalid',
        title: 'The estimate cannot be saved yet',
        detail: checked.error.issues.map(i => `${i.path.join('.')}: ${i.message}`).join('; '),
      }
      return false
    }
    saving.value = true
    try {
      const body = estimate.value
      const { version } = await client.send(
        'PUT',
        `estimates/${id.value}`,
        { basedOn: saved.value?.version ?? null, estimate: body, name },
        estimateSaved,
      )
      saved.value = { id: id.value, version, who: useSession().who, savedAt: new Date().toISOString(), estimate: body, name }
      problem.value = null
      return true
    } catch (error) {
      problem.value = problemOf(error)
      if (problem.value.status === 409) overtaken.value = await client.get(`estimates/${id.value}`, savedEstimate).catch(() => null)
      return false
    } finally {
      saving.value = false
    }
  }
  /** Keeps what is on the screen as an estimate of its own, when someone else was quicker. @returns its id. */
  async function saveApart(): Promise<string | null> {
    if (!estimate.value) return null
    const own = crypto.randomUUID()
    try {
      await client.send(
        'PUT',
        `estimates/${own}`,
        { basedOn: null, estimate: { ...estimate.value, name: `${estimate.value.name} (${useSession().who})`.slice(0, 120) } },
        estimateSaved,
      )
      saved.value = saved.value && { ...saved.value, estimate: estimate.value }
      return own
    } catch (error) {
      problem.value = problemOf(error)
      return null
    }
  }

  const withRows = (edit: (components: Component[]) => Component[]) => change(e => ({ ...e, components: edit(e.components) }))
  const insertAfterPart = (components: Component[], rows: Component[]): Component[] => {
    const last = components.map(c => c.part).lastIndexOf(rows[0]?.part ?? '')
    return components.toSpliced(last < 0 ? components.length : last + 1, 0, ...rows)
  }
  const addRows = (rows: Component[]) => rows.length && withRows(components => insertAfterPart(components, rows))
  function add(kind: ComponentKind, part = parts.value.at(-1) ?? 'Workload', inputs: Record<string, string> = {}): string {
    const place = findPlace(inputs.where ?? '', estimate.value!, cards.value)!
    const component = newRow(
      newId(),
      part,
      kind.kind,
      { ...usualInputs(kind, place.card, place.region, inputs), ...inputs },
      { confirmed: Object.keys(inputs) },
    )
    addRows([component])
    return component.id
  }
  /** Rows of lines that were read: what they give is chosen, the rest begins as usual. */
  function addRead(lines: readonly ReadLine[], part = parts.value.at(-1) ?? 'Workload'): string[] {
    const place = findPlace('', estimate.value!, cards.value)!
    const rows = lines.map(({ kind, inputs }) =>
      newRow(
        newId(),
        part,
        kind.kind,
        { ...usualInputs(kind, place.card, place.region, inputs), ...inputs },
        { confirmed: Object.keys(inputs) },
      ),
    )
    addRows(rows)
    return rows.map(row => row.id)
  }
  const addPattern = (pattern: Pattern, answers: Record<number, string>) => addRows(fillPattern(pattern, answers, newId))
  const offered = (kind: ComponentKind) =>
    !estimate.value || [...cards.value.values()].some(c => c.regions.some(r => isOffered(kind, c, r.id)))

  const addSpot = (spot: BlindSpotFound) => change(e => fillBlindSpot(e, spot.fix, newId()))
  const dismiss = (blindSpot: string, reason: string) => change(e => ({ ...e, dismissed: [...e.dismissed, { blindSpot, reason }] }))
  const restore = (blindSpot: string) => change(e => ({ ...e, dismissed: e.dismissed.filter(d => d.blindSpot !== blindSpot) }))
  const keepDuplicate = (component: string) => dismiss(keptDuplicate(component), 'meant to be there twice')
  const merge = (into: string, other: string) =>
    change(e => {
      const both = mergeRows(
        e.components.find(c => c.id === into)!,
        e.components.find(c => c.id === other)!,
      )
      return both ? { ...e, components: e.components.filter(c => c.id !== other).map(c => (c.id === into ? both : c)) } : e
    })

  const editRow = (component: string, edit: (row: Component) => Component) =>
    withRows(rows => rows.map(c => (c.id === component ? edit(c) : c)))
  const changeScenario = (which: string, edit: (scenario: Scenario) => Scenario) =>
    change(e => ({ ...e, scenarios: e.scenarios.map(s => (s.id === which ? edit(s) : s)) }))

  /** Sets an input of rows: in the scenario that is looked at, else in the rows themselves. */
  function set(components: string[], field: string, value: string) {
    const text = (component: string) => {
      const found = findKind(byId.value.get(component)?.kind ?? '')?.fields.find(f => f.name === field)
      const place = priced.value?.byId.get(component)?.place
      return found
        ? keptText(found, value, found.type === 'choice' && place ? found.options(place.card, place.region) : null)
        : value.trim()
    }
    if (scenarioId.value) {
      return changeScenario(scenarioId.value, s => ({
        ...s,
        rows: { ...s.rows, ...Object.fromEntries(components.map(c => [c, { ...s.rows[c], [field]: text(c) }])) },
      }))
    }
    const wanted = new Set(components)
    if (field === 'where')
      return change(e => ({
        ...e,
        components: e.components.map(c => (wanted.has(c.id) && (c.inputs.where ?? '') !== value ? rowAt(c, value, e, cards.value) : c)),
      }))
    change(e => {
      let changed = false
      const rows = e.components.map(c => {
        if (!wanted.has(c.id) || (c.inputs[field] === text(c.id) && c.confirmed.includes(field))) return c
        changed = true
        return {
          ...c,
          inputs: { ...c.inputs, [field]: text(c.id) },
          confirmed: c.confirmed.includes(field) ? c.confirmed : [...c.confirmed, field],
        }
      })
      return changed ? { ...e, components: rows } : e
    })
  }
  /** Whether the scenario that is looked at has a value of its own for an input. */
  const isOverridden = (component: string, field: string) => scenario.value?.rows[component]?.[field] !== undefined
  const dropOverride = (component: string, field: string) =>
    scenarioId.value &&
    changeScenario(scenarioId.value, s => ({
      ...s,
      rows: { ...s.rows, [component]: Object.fromEntries(Object.entries(s.rows[component] ?? {}).filter(([name]) => name !== field)) },
    }))

  const remove = (components: string[]) => withRows(rows => rows.filter(c => !components.includes(c.id)))
  const duplicate = (component: string) =>
    withRows(rows => {
      const at = rows.findIndex(c => c.id === component)
      return rows.toSpliced(at + 1, 0, { ...rows[at]!, id: newId() })
    })
  const mute = (component: string) => editRow(component, c => ({ ...c, muted: !c.muted }))
  const setNote = (component: string, note: string) => editRow(component, c => ({ ...c, note }))
  const setName = (component: string, name: string) => editRow(component, c => ({ ...c, name: name.trim().slice(0, 80) }))
  /** The estimate in another region: each row goes along as the same thing. */
  const setRegion = (region: string) => change(e => relocate(e, cards.value, { provider: e.provider, region }))
  /** Moves a row before another, into that one's part. */
  const moveBefore = (component: string, target: string | null, part?: string) =>
    withRows(rows => {
      const row = rows.find(c => c.id === component)!
      const others = rows.filter(c => c !== row)
      const at = target === null ? others.length : others.findIndex(c => c.id === target)
      return others.toSpliced(at, 0, { ...row, part: part ?? others[at]?.part ?? row.part })
    })
  /** Moves a row one place up or down, in the order in which the sheet shows them. */
  function moveBy(component: string, step: 1 | -1) {
    const shown = parts.value.flatMap(part => estimate.value!.components.filter(c => c.part === part))
    const at = shown.findIndex(c => c.id === component)
    const other = shown[at + step]
    if (!other) return
    const [row, ...rest] = [shown[at]!, ...shown.filter(c => c.id !== component)]
    // at the edge of its part it goes over into the next one first
    const next = row.part !== other.part ? rest.toSpliced(at, 0, { ...row, part: other.part }) : rest.toSpliced(at + step, 0, row)
    withRows(() => next)
  }
  const renamePart = (from: string, to: string) =>
    to.trim() && to.trim() !== from && withRows(rows => rows.map(c => (c.part === from ? { ...c, part: to.trim() } : c)))
  const confirm = (component: string, field: string) => editRow(component, c => ({ ...c, confirmed: [...c.confirmed, field] }))
  const confirmAll = () => withRows(rows => rows.map(c => ({ ...c, confirmed: (findKind(c.kind)?.fields ?? []).map(f => f.name) })))

  function addScenario(name: string, change_: Change = { whole: {}, rows: {}, conditions: [] }): string {
    const own = newId()
    change(e => ({ ...e, scenarios: [...e.scenarios, { id: own, name: name.slice(0, 80), ...change_ }] }))
    return own
  }
  /** A scenario in which everything stands elsewhere; another provider's card is named in the estimate. */
  async function addMove(provider: string, region: string) {
    try {
      if (!cards.value.has(provider)) {
        const held = cardsHeld(cardList.value, today()).find(c => c.provider === provider)!
        await nameCard(versionOfEntry(held))
      }
      const moved = moveScenario(estimate.value!, { provider, region }, newId(), `in ${region}`)
      change(e => ({ ...e, scenarios: [...e.scenarios, moved] }))
      return moved.id
    } catch (error) {
      problem.value = problemOf(error)
      return null
    }
  }
  const tryCloser = (closer: Closer) => addScenario(changeName(estimate.value!, closer.change), closer.change)
  /** Makes a scenario's inputs the estimate's own. */
  function adopt(which: string) {
    if (scenarioId.value === which) scenarioId.value = null
    change(e => takeOver(e, which, prices.value))
  }
  const removeScenario = (which: string) => change(e => ({ ...e, scenarios: e.scenarios.filter(s => s.id !== which) }))

  /** Names a version of a card that rows may stand on, or another version of one that is named. */
  async function nameCard(card: CardVersion) {
    const loaded = await loadCard(card)
    const before = cards.value
    cards.value = new Map(before).set(card.provider, loaded)
    bodies.set(keyOfCard(card), loaded)
    change(e => (before.has(card.provider) ? priceOnCard(e, before, card, loaded).estimate : withCard(e, card)))
  }

  // undo may go back to another version of a card
  watch(
    () => estimate.value?.cards,
    async named => {
      if (!named || named.every(card => bodies.has(keyOfCard(card)) && cards.value.get(card.provider) === bodies.get(keyOfCard(card))))
        return
      try {
        if (named.every(card => bodies.has(keyOfCard(card))))
          cards.value = new Map(named.map(card => [card.provider, bodies.get(keyOfCard(card))!]))
        else await loadCards({ cards: named })
      } catch (error) {
        problem.value = problemOf(error)
      }
    },
  )

  /** The file that goes out; the same comes in again. */
  const json = () => writeEstimate(estimate.value!)

  return {
    id,
    rates,
    setName,
    setRegion,
    saved,
    estimate,
    cards,
    cardList,
    card,
    uplifts,
    patterns,
    prices,
    problem,
    overtaken,
    saving,
    explained,
    workings,
    past,
    future,
    columns,
    base,
    priced,
    currency,
    scenario,
    scenarioId,
    differences,
    spots,
    notices,
    unsaved,
    parts,
    byId,
    newerCards,
    open,
    take,
    loadCard,
    change,
    patch,
    undo,
    redo,
    save,
    saveApart,
    add,
    addRows,
    addRead,
    addPattern,
    offered,
    addSpot,
    dismiss,
    restore,
    keepDuplicate,
    merge,
    set,
    isOverridden,
    dropOverride,
    remove,
    duplicate,
    mute,
    setNote,
    moveBefore,
    moveBy,
    renamePart,
    confirm,
    confirmAll,
    addScenario,
    addMove,
    tryCloser,
    adopt,
    removeScenario,
    changeScenario,
    nameCard,
    json,
  }
})
