import Papa from 'papaparse'
import { findKind } from '../../core/estimate/components'
import type { ChoiceField, Field, SheetColumn } from '../../core/estimate/components/field'
import { applies, type Place } from '../../core/estimate/components/kind'
import type { Component } from '../../core/estimate/estimate'
import { readLine } from '../../core/estimate/adding/read-line'
import { replacedText } from '../../core/estimate/scenarios/equivalent'
import { looksLikeRows, pasteRows } from '../../core/estimate/sheet/paste'
import { readNumber } from '../../core/estimate/sheet/number-text'
import { findPlace, placeText } from '../../core/estimate/pricing/place'
import { describeLine } from '../../core/ratecard/describe'
import { unitWords } from '../../core/ratecard/meters'
import { findPrice, findSize, findSku } from '../../core/ratecard/find-price'
import { evaluate } from '../../core/working/working'
import { figureOf, figureText, figureWords, priceAlone, type FigureName } from '../../core/estimate/pricing/price-estimate'
import type { PricedEstimate } from '../../core/estimate/pricing/priced'
import { ownChargesOf } from '../../core/estimate/pricing/plan-row'

export type InputColumn = { key: SheetColumn | 'name'; label: string; number?: boolean }
/** A column of amounts: of the scenario in place `at`, or how it differs from the first. */
export type FigureColumn = { key: string; label: string; figure: FigureName; at: number; difference?: true; first?: boolean }
/** One of the values that a choice can have, with what it is and costs. */
export type CellOption = { value: string; label: string; note?: string }
/** Options of a size, by which they are found by what they are. */
export type SizesOf = { place: Place; meter: string } | null
export type Cell = { component: string; column: number }
/** What the sheet shows from top to bottom. */
export type SheetItem = { key: string } & (
  | { is: 'part'; part: string }
  | { is: 'row'; component: Component }
  | {
      is: 'said'
      component: Component
      text: string
      bad: boolean
      duplicateOf?: string
      instead?: { field: string; value: string; label: string }
      rate?: string
    }
  | { is: 'opened'; component: Component }
)

const whereField: Field = {
  type: 'choice',
  name: 'where',
  label: 'where',
  column: 'where',
  help: 'Region, or region of another provider.',
  options: () => [],
  usual: () => '',
}

/** The sheet's state that is not the estimate's: what is active, selected, edited, opened; and everything that keys do. */
export function useSheet(grid: Ref<HTMLElement | null>, showItem: (index: number) => void) {
  const store = useEstimate()
  const active = ref<Cell | null>(null)
  /** The other end of the selection, in the active cell's column. */
  const selectedTo = ref<string | null>(null)
  const editing = ref(false)
  const typed = ref('')
  const opened = ref<string | null>(null)
  const menuFor = ref<string | null>(null)
  /** What a cell held when it began to be edited; null when typing has replaced it at once. */
  let begun: string | null = null
  const compared = ref<FigureName>('effectiveMonthly')
  const said = ref('')

  const estimate = computed(() => store.estimate!)
  const showsWhere = computed(
    () =>
      estimate.value.components.some(c => c.inputs.where) ||
      estimate.value.scenarios.some(s => Object.values(s.rows).some(r => r.where !== undefined)),
  )
  const inputColumns = computed((): InputColumn[] => [
    { key: 'name', label: 'component' },
    ...(showsWhere.value ? [{ key: 'where' as const, label: 'where' }] : []),
    { key: 'size', label: 'size, class' },
    { key: 'amount', label: 'how much', number: true },
    { key: 'runs', label: 'runs', number: true },
    { key: 'count', label: 'count', number: true },
    { key: 'pays', label: 'pays how' },
  ])
  const comparing = computed(() => estimate.value.scenarios.length > 0)
  const paysUpfront = computed(() => !evaluate(store.columns[0]!.total.upfront).eq(0))
  const figureColumns = computed((): FigureColumn[] => {
    if (!comparing.value)
      return (['upfront', 'monthly', 'effectiveMonthly', 'firstYear', 'wholeTerm'] as const).map(figure => ({
        key: figure,
        label:
          figure === 'wholeTerm'
            ? `${store.base!.termYears} ${store.base!.termYears === 1 ? 'year' : 'years'}`
            : figure === 'firstYear'
              ? '12 months'
              : figureWords[figure],
        figure,
        at: 0,
      }))
    const figure = compared.value
    return store.columns.flatMap((_, at): FigureColumn[] =>
      at === 0
        ? [
            ...(paysUpfront.value && figure !== 'upfront'
              ? [{ key: 'upfront', label: 'upfront', figure: 'upfront' as const, at, first: true }]
              : []),
            { key: `${figure} 0`, label: figureWords[figure], figure, at, first: true },
          ]
        : [
            { key: `${figure} ${at}`, label: figureWords[figure], figure, at, first: true },
            { key: `${figure} ${at} difference`, label: 'to A', figure, at, difference: true },
          ],
    )
  })
  const shownRows = computed(() => store.parts.flatMap(part => estimate.value.components.filter(c => c.part === part)))
  const noticesOf = computed(() => Map.groupBy(store.notices, notice => notice.component))
  const items = computed((): SheetItem[] =>
    store.parts.flatMap((part): SheetItem[] => [
      { key: `part ${part}`, is: 'part', part },
      ...estimate.value.components
        .filter(c => c.part === part)
        .flatMap((component): SheetItem[] => {
          const row = store.priced!.byId.get(component.id)
          return [
            { key: component.id, is: 'row', component },
            ...Object.entries(row?.problems ?? {}).map(([field, text]): SheetItem => ({
              key: `${component.id} ${field}`,
              is: 'said',
              component,
              text: row?.notOffered
                ? `${sentence(text)}. The row is not counted in this scenario; choose another value for it here, or leave it out.`
                : `${sentence(text)}. The row is not counted until this fits.`,
              bad: true,
              ...(row?.refusal?.instead && { instead: { field: row.refusal.field, ...row.refusal.instead } }),
              ...(row?.refusal?.give && { rate: row.refusal.give.rate }),
            })),
            ...(row?.replaced.length
              ? [
                  {
                    key: `${component.id} replaced`,
                    is: 'said' as const,
                    component,
                    text: `In ${row.place!.region}: ${replacedText(row.replaced)}.`,
                    bad: false,
                  },
                ]
              : []),
            ...(noticesOf.value.get(component.id) ?? []).map((notice, i): SheetItem => ({
              key: `${component.id} notice ${i}`,
              is: 'said',
              component,
              text: notice.text,
              bad: false,
              duplicateOf: notice.duplicateOf,
            })),
            ...(opened.value === component.id ? [{ key: `${component.id} opened`, is: 'opened' as const, component }] : []),
          ]
        }),
    ]),
  )

  const rowOf = (component: string) => store.priced!.byId.get(component)
  const fieldAt = (component: Component, column: number): Field | undefined => {
    const key = inputColumns.value[column]?.key
    if (key === 'where') return whereField
    const field = findKind(component.kind)?.fields.find(f => f.column === key)
    const row = rowOf(component.id)
    return field && row?.place && !applies(field, row.inputs, row.place) ? undefined : field
  }
  const value = (component: Component, field: Field) => rowOf(component.id)?.inputs[field.name] ?? component.inputs[field.name] ?? ''
  const placeLabel = (where: string) => {
    const place = findPlace(where, estimate.value, store.cards)
    return place ? place.region : where
  }
  function cellText(component: Component, field: Field): string {
    const text = value(component, field)
    if (field.name === 'where') return placeLabel(text)
    if (field.name === 'sku') {
      const card = rowOf(component.id)?.place?.card
      const line = card && findSku(card, text)
      return line ? describeLine(line, card) : text
    }
    return shownInput(field, text)
  }
  /** Options of a choice where the row stands. */
  const options = (component: Component, field: Field): CellOption[] => {
    if (field.name === 'where')
      return [...store.cards.values()].flatMap(card =>
        card.regions.map(r => ({
          value: placeText(card.provider, r.id, estimate.value),
          label: card.provider === estimate.value.provider ? r.id : `${r.id}, ${card.provider}`,
        })),
      )
    const place = rowOf(component.id)?.place
    return field.type === 'choice' && place
      ? field.options(place.card, place.region).map(option => optionOf(component, field, place, option))
      : []
  }
  /** An option with its price where it stands for a line of the rate card, and the organisation's own charges on it. */
  function optionOf(component: Component, field: ChoiceField, { card, region }: Place, option: string): CellOption {
    const line = field.name === 'sku' ? findSku(card, option) : field.meter && findPrice(card, field.meter, region, option)
    if (!line) return { value: option, label: option }
    const size = findSize(card, option)
    const facts = size ? [`${size.vcpu} vCPU`, `${size.memoryGb} GB`, ...(size.architecture ? [size.architecture] : [])] : []
    return {
      value: option,
      label: field.name === 'sku' ? describeLine(line, card) : option,
      note: [
        ...facts,
        `${fullPrice(line.tiers[0]!.price)} ${card.currency} per ${unitWords(line.unit)}`,
        ...withOwnCharges(component, field, option),
      ].join(' · '),
    }
  }
  /** What the row costs a month with the option, where own charges come on top: their names alone say no price. */
  function withOwnCharges(component: Component, field: ChoiceField, option: string): string[] {
    const kind = findKind(component.kind)!
    const inputs = { ...rowOf(component.id)?.inputs, [field.name]: option }
    if (!ownChargesOf(store.uplifts, kind, inputs, component.pattern, estimate.value).length) return []
    const chosen = priceAlone(estimate.value, store.prices, component, { [field.name]: option }).chosen
    return chosen
      ? [`${money(roundText(figureText(chosen.effectiveMonthly)), store.currency)} ${store.currency} a month for the row with own charges`]
      : []
  }
  /** Sizes are found by what they are. */
  function sizesOf(component: Component, field: Field): SizesOf {
    const place = rowOf(component.id)?.place
    return place &&
      field.type === 'choice' &&
      field.meter &&
      field.options(place.card, place.region).some(option => findSize(place.card, option))
      ? { place, meter: field.meter }
      : null
  }
  const isActive = (component: string, column: number) => active.value?.component === component && active.value.column === column
  const selected = computed((): Set<string> => {
    if (!active.value) return new Set()
    const ids = shownRows.value.map(c => c.id)
    const [a, b] = [ids.indexOf(active.value.component), ids.indexOf(selectedTo.value ?? active.value.component)]
    return new Set(ids.slice(Math.min(a, b), Math.max(a, b) + 1))
  })

  const findCell = (cell: Cell) => grid.value?.querySelector<HTMLElement>(`[data-cell="${cell.component}-${cell.column}"]`)
  async function focusCell(cell: Cell, keepSelection = false) {
    active.value = cell
    if (!keepSelection) selectedTo.value = null
    editing.value = false
    await nextTick()
    if (!findCell(cell)) {
      showItem(items.value.findIndex(item => item.key === cell.component))
      await nextTick()
      await new Promise(resolve => requestAnimationFrame(resolve))
    }
    findCell(cell)?.focus()
  }

  async function edit(component: Component, column: number, first?: string) {
    const field = fieldAt(component, column)
    if (column === 0) {
      opened.value = opened.value === component.id ? null : component.id
      return
    }
    if (!field) return
    active.value = { component: component.id, column }
    typed.value = first ?? (field.type === 'choice' ? '' : value(component, field))
    begun = first === undefined ? value(component, field) : null
    editing.value = true
    await nextTick()
    const box = grid.value?.querySelector<HTMLInputElement>('.editor')
    box?.focus()
    if (first === undefined) box?.select()
  }

  /** Rows of the selection that have the same input. */
  const targets = (component: Component, field: Field) =>
    selected.value.has(component.id) && selected.value.size > 1
      ? shownRows.value.filter(c => selected.value.has(c.id) && findKind(c.kind)?.fields.some(f => f.name === field.name)).map(c => c.id)
      : [component.id]

  function commit(component: Component, column: number) {
    const field = fieldAt(component, column)
    if (!editing.value || !field) return
    editing.value = false
    // what was not touched stays as it is
    if (begun !== null && String(typed.value) === begun) return
    store.set(targets(component, field), field.name, String(typed.value))
  }

  /** Takes a value from the list of a choice. */
  async function take(component: Component, column: number, chosen: string, how: 'enter' | 'tab' | 'tab back') {
    const field = fieldAt(component, column)
    begun = field && targets(component, field).length === 1 ? value(component, field) : null
    typed.value = chosen
    commit(component, column)
    if (how === 'enter') await focusCell({ component: component.id, column }, true)
    else await move(component, column, 0, how === 'tab' ? 1 : -1)
  }

  async function move(component: Component, column: number, rowStep: number, columnStep: number) {
    const at = shownRows.value.findIndex(c => c.id === component.id)
    if (rowStep) {
      const next = shownRows.value[at + rowStep]
      if (next) await focusCell({ component: next.id, column })
      else if (rowStep > 0) document.querySelector<HTMLInputElement>('.adder')?.focus()
      return
    }
    for (let next = column + columnStep; next >= 0 && next < inputColumns.value.length; next += columnStep) {
      if (next === 0 || fieldAt(component, next)) return focusCell({ component: component.id, column: next })
    }
    const after = shownRows.value[at + columnStep]
    if (after) await focusCell({ component: after.id, column: columnStep > 0 ? 0 : inputColumns.value.length - 1 })
  }

  function select(component: Component, step: number) {
    const ids = shownRows.value.map(c => c.id)
    const next = ids[ids.indexOf(selectedTo.value ?? component.id) + step]
    if (next) selectedTo.value = next
  }

  /** The first value of the selection in all of its rows; without a selection the value above. */
  function copyDown(component: Component, column: number) {
    const field = fieldAt(component, column)
    if (!field || column === 0) return
    const rows = shownRows.value
    const at = rows.findIndex(c => c.id === component.id)
    const chosen = rows.filter(c => selected.value.has(c.id))
    const from = chosen.length > 1 ? chosen[0]! : rows[at - 1]
    const source = from && fieldAt(from, column)
    if (!from || !source || source.name !== field.name) return
    const into = (chosen.length > 1 ? chosen.slice(1) : [component]).filter(c => fieldAt(c, column)?.name === field.name)
    store.set(
      into.map(c => c.id),
      field.name,
      value(from, source),
    )
  }

  async function removeRows(component: Component) {
    const at = shownRows.value.findIndex(c => c.id === component.id)
    store.remove(selected.value.size > 1 ? [...selected.value] : [component.id])
    const next = shownRows.value[Math.min(at, shownRows.value.length - 1)]
    if (next) await focusCell({ component: next.id, column: 0 })
    else document.querySelector<HTMLInputElement>('.adder')?.focus()
  }

  async function onKey(event: KeyboardEvent, component: Component, column: number) {
    if (editing.value) return
    const command = event.ctrlKey || event.metaKey
    const steps: Record<string, [number, number]> = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] }
    const step = steps[event.key]
    if (step && event.altKey && step[0]) {
      store.moveBy(component.id, step[0] as 1 | -1)
      await focusCell({ component: component.id, column })
    } else if (step && event.shiftKey && step[0]) select(component, step[0])
    else if (step && !event.altKey) await move(component, column, ...step)
    else if (event.key === 'Enter' && event.altKey) menuFor.value = component.id
    else if (event.key === 'ContextMenu' || (event.key === 'F10' && event.shiftKey)) menuFor.value = component.id
    else if (event.key === 'Enter' || event.key === 'F2') await edit(component, column)
    else if (event.key === 'Escape' && selectedTo.value) selectedTo.value = null
    else if (event.key === 'Delete' && column === 0) await removeRows(component)
    else if (event.key === 'Delete' && store.scenarioId && fieldAt(component, column))
      store.dropOverride(component.id, fieldAt(component, column)!.name)
    else if (event.key === 'd' && command) copyDown(component, column)
    else if (event.key === 'm' && event.altKey) store.mute(component.id)
    else if (event.key.length === 1 && !command && !event.altKey && column > 0 && fieldAt(component, column))
      await edit(component, column, event.key)
    else return
    event.preventDefault()
  }

  async function onEditKey(event: KeyboardEvent, component: Component, column: number) {
    if (['Escape', 'Enter', 'Tab'].includes(event.key)) event.stopPropagation() // the cell around the editor would take the key for its own
    if (event.key === 'Escape') await focusCell({ component: component.id, column }, true)
    else if (event.key === 'Enter' || event.key === 'Tab') {
      event.preventDefault()
      commit(component, column)
      if (event.key === 'Enter') await focusCell({ component: component.id, column }, true)
      else await move(component, column, 0, event.shiftKey ? -1 : 1)
    }
  }

  /** The wheel over a number that is being edited: one up or down, within its limits. */
  function onWheel(event: WheelEvent, component: Component, column: number) {
    const field = fieldAt(component, column)
    const number = readNumber(typed.value)
    if (field?.type !== 'number' || !number || number.isRange) return
    event.preventDefault()
    const next = number.likely.plus(event.deltaY < 0 ? 1 : -1)
    if (next.gte(field.min) && next.lte(field.max)) typed.value = next.toFixed()
  }

  /** Cells of a spreadsheet: rows become components, values go into the cells from the active one on. */
  function onPaste(event: ClipboardEvent) {
    if (editing.value || !event.clipboardData) return
    const text = event.clipboardData.getData('text/plain')
    if (!text.trim()) return
    event.preventDefault()
    pasteText(text)
  }
  function pasteText(text: string) {
    if (pasteLines(text)) return
    const table = Papa.parse<string[]>(text.replace(/\r?\n$/, ''), { delimiter: text.includes('\t') ? '\t' : '' }).data
    const current = active.value && estimate.value.components.find(c => c.id === active.value!.component)
    if (looksLikeRows(table) || !current) {
      const { components, problems } = pasteRows(table, current?.part ?? store.parts.at(-1) ?? 'Workload', () =>
        crypto.randomUUID().slice(0, 8),
      )
      store.addRows(components)
      said.value = [
        `${count(components.length)} ${components.length === 1 ? 'row was' : 'rows were'} pasted.`,
        ...problems.slice(0, 6).map(p => `Line ${p.line}: ${p.text}.`),
      ].join(' ')
      return
    }
    const rows = shownRows.value.slice(shownRows.value.findIndex(c => c.id === current.id))
    let pasted = 0
    table.slice(0, rows.length).forEach((cells, r) =>
      cells.forEach((cell, c) => {
        const field = fieldAt(rows[r]!, active.value!.column + c)
        if (!field || active.value!.column + c === 0) return
        store.set([rows[r]!.id], field.name, cell)
        pasted++
      }),
    )
    said.value = `${count(pasted)} ${pasted === 1 ? 'value was' : 'values were'} pasted.`
  }
  /** Lines as one types them into the adder, such as `100 GB disk x 2`: each becomes a row. Whether they were such lines. */
  function pasteLines(text: string): boolean {
    const lines = text
      .trim()
      .split(/\r?\n/)
      .map(line => line.trim())
      .filter(Boolean)
    const place = findPlace('', estimate.value, store.cards)
    if (text.includes('\t') || lines.length < 2 || !place) return false
    const read = lines.map(line => readLine(line, place))
    if (read.filter(Boolean).length * 2 < lines.length) return false
    store.addRead(read.flatMap(line => line ?? []))
    const left = lines.filter((_, i) => !read[i])
    const unknown = read.flatMap(line => line?.unknown ?? [])
    said.value = [
      `${count(lines.length - left.length)} ${lines.length - left.length === 1 ? 'row was' : 'rows were'} added.`,
      ...(left.length ? [`Not understood: ${left.slice(0, 4).join('; ')}.`] : []),
      ...(unknown.length ? [`Left out: ${unknown.slice(0, 6).join(', ')}.`] : []),
    ].join(' ')
    return true
  }
  function onCopy(event: ClipboardEvent) {
    if (editing.value || !active.value || window.getSelection()?.toString()) return
    const { column } = active.value
    const texts = shownRows.value
      .filter(c => selected.value.has(c.id))
      .map(c => {
        const field = fieldAt(c, column)
        return column === 0
          ? [
              findKind(c.kind)?.label ?? c.kind,
              ...inputColumns.value.slice(1).map((_, i) => (fieldAt(c, i + 1) ? value(c, fieldAt(c, i + 1)!) : '')),
            ].join('\t')
          : field
            ? value(c, field)
            : ''
      })
    event.clipboardData?.setData('text/plain', texts.join('\n'))
    event.preventDefault()
  }

  /** The row that is being dragged to another place or part. */
  const dragged = ref<string | null>(null)
  function drop(target: string | null, part: string) {
    if (dragged.value && dragged.value !== target) store.moveBefore(dragged.value, target, part)
    dragged.value = null
  }

  /** A row's figure in a column as Workings; null where it has none. */
  const figure = (component: string, column: FigureColumn) => {
    const priced: PricedEstimate = store.columns[column.at]!
    const chosen = priced.byId.get(component)?.chosen
    return chosen ? figureOf(chosen, column.figure, priced.termYears) : null
  }
  return {
    active,
    selectedTo,
    selected,
    editing,
    typed,
    opened,
    menuFor,
    compared,
    said,
    inputColumns,
    figureColumns,
    comparing,
    shownRows,
    items,
    rowOf,
    fieldAt,
    value,
    cellText,
    options,
    sizesOf,
    isActive,
    focusCell,
    edit,
    commit,
    take,
    move,
    onKey,
    onEditKey,
    onWheel,
    onPaste,
    onCopy,
    pasteText,
    figure,
    dragged,
    drop,
  }
}

/** A problem as a sentence begins. */
const sentence = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)

export type Sheet = ReturnType<typeof useSheet>
export const sheetKey: InjectionKey<Sheet> = Symbol('sheet')
