import { computed, nextTick, ref, type InjectionKey, type Ref } from 'vue'
import type { Field } from '../../core/estimate/components/field'
import { findKind } from '../../core/estimate/components'
import type { Component } from '../../core/estimate/estimate'
import type { FigureName } from '../../core/estimate/pricing/price-estimate'
import type { SheetPrices } from '../../core/estimate/sheet/column-sums'
import { figureColumns as columnsOfFigures, inputColumns as columnsOfInputs } from '../../core/estimate/sheet/columns'
import { sheetItems } from '../../core/estimate/sheet/items'
import { readNumber } from '../../core/estimate/sheet/number-text'
import { useEstimate } from '../stores/estimate'
import { sheetCells } from './sheet/cells'
import { sheetClipboard, type Cell } from './sheet/clipboard'

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
  const inputColumns = computed(() => columnsOfInputs(estimate.value))
  const comparing = computed(() => estimate.value.scenarios.length > 0)
  const figureColumns = computed(() => columnsOfFigures(store.columns, compared.value))
  const shownRows = computed(() => store.parts.flatMap(part => estimate.value.components.filter(c => c.part === part)))
  const items = computed(() => sheetItems(estimate.value, store.priced!, store.notices, opened.value))
  const cells = sheetCells(store, () => inputColumns.value)
  const { fieldAt, value } = cells

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

  const clipboard = sheetClipboard({ store, cells, active, editing, said, shownRows, selected, inputColumns })

  /** The row that is being dragged to another place or part. */
  const dragged = ref<string | null>(null)
  function drop(target: string | null, part: string) {
    if (dragged.value && dragged.value !== target) store.moveBefore(dragged.value, target, part)
    dragged.value = null
  }

  /** What the columns tell: every scenario priced, and how each differs from the first in the figure compared. */
  const prices = computed((): SheetPrices => ({ priced: store.columns, differences: store.differences(compared.value) }))
  return {
    ...{ active, selectedTo, selected, editing, typed, opened, menuFor, compared, said, comparing },
    ...{ inputColumns, figureColumns, shownRows, items, isActive, prices, dragged, drop },
    ...{ focusCell, edit, commit, take, move, onKey, onEditKey, onWheel },
    ...cells,
    ...clipboard,
  }
}

export type Sheet = ReturnType<typeof useSheet>
export const sheetKey: InjectionKey<Sheet> = Symbol('sheet')
