<script setup lang="ts">
import { findKind } from '../../../core/estimate/components'
import type { Field, SheetColumn } from '../../../core/estimate/components/kind'
import type { Component } from '../../../core/estimate/estimate'

/** The sheet: rows are components, cells are edited in place, everything by keyboard. */
const store = useEstimate()
const columns: { key: SheetColumn | 'name', label: string, number?: boolean }[] = [
  { key: 'name', label: 'component' }, { key: 'size', label: 'size, class' }, { key: 'amount', label: 'how much', number: true }, { key: 'runs', label: 'runs', number: true }, { key: 'count', label: 'count', number: true }, { key: 'pays', label: 'pays how' },
]
type Cell = { component: string, column: number }
const active = ref<Cell | null>(null)
const editing = ref(false)
const typed = ref('')
const opened = ref<string | null>(null)
const grid = useTemplateRef<HTMLElement>('grid')

const estimate = computed(() => store.estimate!)
const priced = computed(() => new Map(store.priced!.components.map(c => [c.id, c])))
const rows = computed(() => store.parts.flatMap(part => estimate.value.components.filter(c => c.part === part)))
const groups = computed(() => store.parts.map(part => ({ part, components: estimate.value.components.filter(c => c.part === part) })))
const fieldAt = (component: Component, column: number): Field | undefined => findKind(component.kind)?.fields.find(f => f.column === columns[column]!.key)
const value = (component: Component, field: Field) => priced.value.get(component.id)?.inputs[field.name] ?? component.inputs[field.name] ?? ''
const cellText = (component: Component, field: Field) => {
  const text = value(component, field)
  return field.type === 'number' && /^\d+(\.\d+)?$/.test(text) ? `${quantity(text)}${field.unit ? ` ${field.unit}` : ''}` : text
}
const problemOfField = (component: Component, field: Field) => priced.value.get(component.id)?.problems[field.name]
const isActive = (component: Component, column: number) => active.value?.component === component.id && active.value.column === column
const options = (field: Field) => field.type === 'choice' && store.card ? field.options(store.card, estimate.value.region) : []

async function focusCell(cell: Cell) {
  active.value = cell
  editing.value = false
  await nextTick()
  grid.value?.querySelector<HTMLElement>(`[data-cell="${cell.component}-${cell.column}"]`)?.focus()
}

async function edit(component: Component, column: number, first?: string) {
  const field = fieldAt(component, column)
  if (column === 0) {
    opened.value = opened.value === component.id ? null : component.id
    return
  }
  if (!field) return
  active.value = { component: component.id, column }
  typed.value = first ?? value(component, field)
  editing.value = true
  await nextTick()
  const box = grid.value?.querySelector<HTMLInputElement | HTMLSelectElement>('.editor')
  box?.focus()
  if (box instanceof HTMLInputElement && first === undefined) box.select()
}

function commit(component: Component, column: number) {
  const field = fieldAt(component, column)
  if (!editing.value || !field) return
  editing.value = false
  store.set(component.id, field.name, String(typed.value).trim())
}

async function move(component: Component, column: number, rowStep: number, columnStep: number) {
  const at = rows.value.findIndex(c => c.id === component.id)
  if (rowStep) {
    const next = rows.value[at + rowStep]
    if (next) await focusCell({ component: next.id, column })
    else if (rowStep > 0) document.querySelector<HTMLInputElement>('.adder')?.focus()
    return
  }
  for (let next = column + columnStep; next >= 0 && next < columns.length; next += columnStep) {
    if (next === 0 || fieldAt(component, next)) return focusCell({ component: component.id, column: next })
  }
  const after = rows.value[at + columnStep]
  if (after) await focusCell({ component: after.id, column: columnStep > 0 ? 0 : columns.length - 1 })
}

async function onKey(event: KeyboardEvent, component: Component, column: number) {
  if (editing.value) return
  const steps: Record<string, [number, number]> = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] }
  const step = steps[event.key]
  if (step) await move(component, column, ...step)
  else if (event.key === 'Enter' || event.key === 'F2') await edit(component, column)
  else if (event.key === 'Delete' && column === 0) {
    const at = rows.value.findIndex(c => c.id === component.id)
    store.remove(component.id)
    const next = rows.value[Math.min(at, rows.value.length - 1)]
    if (next) await focusCell({ component: next.id, column: 0 })
  }
  else if (event.key === 'd' && (event.ctrlKey || event.metaKey)) store.duplicate(component.id)
  else if (/^[\d.]$/.test(event.key) && !event.ctrlKey && !event.metaKey && fieldAt(component, column)?.type === 'number') await edit(component, column, event.key)
  else return
  event.preventDefault()
}

async function onEditKey(event: KeyboardEvent, component: Component, column: number) {
  if (['Escape', 'Enter', 'Tab'].includes(event.key)) event.stopPropagation() // the cell around the editor would take the key for its own
  if (event.key === 'Escape') {
    await focusCell({ component: component.id, column })
  }
  else if (event.key === 'Enter' || event.key === 'Tab') {
    event.preventDefault()
    commit(component, column)
    if (event.key === 'Enter') await focusCell({ component: component.id, column })
    else await move(component, column, 0, event.shiftKey ? -1 : 1)
  }
}

const groupSum = (components: Component[], name: 'upfront' | 'monthly' | 'effectiveMonthly' | 'firstYear') => addTexts(components.map(c => priced.value.get(c.id)?.chosen?.[name] ?? '0'))
const shown = (text: string) => text === '0' ? '–' : money(roundText(text), store.priced!.currency)
defineExpose({ focusCell, openRow: (id: string) => {
  opened.value = id
} })
</script>

<template>
  <div ref="grid" class="sheet">
    <table class="ledger" role="grid" aria-label="Components">
      <thead>
        <tr><th v-for="column in columns" :key="column.key" :class="{ n: column.number }">{{ column.label }}</th><th class="n">unit price</th><th class="n">upfront</th><th class="n">monthly</th><th class="n">effective monthly</th><th class="n">12 months</th><th class="n">whole term</th></tr>
      </thead>
      <tbody v-for="group in groups" :key="group.part">
        <tr class="part">
          <td :colspan="columns.length + 1"><input class="partname" :value="group.part" aria-label="part of the workload" @change="store.renamePart(group.part, ($event.target as HTMLInputElement).value)" @keydown.enter="($event.target as HTMLInputElement).blur()"></td>
          <td class="n">{{ shown(groupSum(group.components, 'upfront')) }}</td><td class="n">{{ shown(groupSum(group.components, 'monthly')) }}</td><td class="n">{{ shown(groupSum(group.components, 'effectiveMonthly')) }}</td><td class="n">{{ shown(groupSum(group.components, 'firstYear')) }}</td><td />
        </tr>
        <template v-for="component in group.components" :key="component.id">
          <tr :class="{ chosen: active?.component === component.id }">
            <td
              v-for="(column, index) in columns" :key="column.key" role="gridcell" :data-cell="`${component.id}-${index}`" class="cell" :class="{ n: column.number, focusable: index === 0 || fieldAt(component, index), wrong: fieldAt(component, index) && problemOfField(component, fieldAt(component, index)!), default: fieldAt(component, index) && !component.confirmed.includes(fieldAt(component, index)!.name) }"
              :tabindex="isActive(component, index) || (!active && component === rows[0] && index === 0) ? 0 : -1" :title="fieldAt(component, index) ? problemOfField(component, fieldAt(component, index)!) ?? fieldAt(component, index)!.help : undefined"
              @click="index === 0 || isActive(component, index) ? edit(component, index) : focusCell({ component: component.id, column: index })" @dblclick="index > 0 && edit(component, index)" @focus="active = { component: component.id, column: index }" @keydown="onKey($event, component, index)"
            >
              <template v-if="index === 0"><span class="twist" aria-hidden="true">{{ opened === component.id ? '▾' : '▸' }}</span> {{ findKind(component.kind)?.label ?? component.kind }}</template>
              <template v-else-if="fieldAt(component, index)">
                <template v-if="editing && isActive(component, index)">
                  <select v-if="fieldAt(component, index)!.type === 'choice'" v-model="typed" class="editor" :aria-label="fieldAt(component, index)!.label" @keydown="onEditKey($event, component, index)" @change="commit(component, index); focusCell({ component: component.id, column: index })" @blur="commit(component, index)" @click.stop>
                    <option v-for="option in options(fieldAt(component, index)!)" :key="option" :value="option">{{ option }}</option>
                  </select>
                  <input v-else v-model="typed" class="editor n" inputmode="decimal" :aria-label="fieldAt(component, index)!.label" @keydown="onEditKey($event, component, index)" @blur="commit(component, index)" @click.stop>
                </template>
                <template v-else>{{ cellText(component, fieldAt(component, index)!) }}</template>
              </template>
            </td>
            <td class="n">{{ priced.get(component.id)?.unitPrice ? `${fullPrice(priced.get(component.id)!.unitPrice!.value)} /${priced.get(component.id)!.unitPrice!.per}` : '–' }}</td>
            <td class="n"><ExplainedFigure :text="priced.get(component.id)?.chosen?.upfront ?? null" :component="component.id" figure="upfront" /></td><td class="n"><ExplainedFigure :text="priced.get(component.id)?.chosen?.monthly ?? null" :component="component.id" figure="monthly" /></td><td class="n"><ExplainedFigure :text="priced.get(component.id)?.chosen?.effectiveMonthly ?? null" :component="component.id" figure="effectiveMonthly" /></td><td class="n"><ExplainedFigure :text="priced.get(component.id)?.chosen?.firstYear ?? null" :component="component.id" figure="firstYear" /></td><td class="n"><ExplainedFigure :text="priced.get(component.id)?.chosen?.wholeTerm ?? null" :component="component.id" figure="wholeTerm" /></td>
          </tr>
          <tr v-for="(problem, field) in priced.get(component.id)?.problems" :key="field" class="problem"><td :colspan="columns.length + 6" class="bad" role="alert">{{ problem }}. The row is not counted until this fits.</td></tr>
          <tr v-if="opened === component.id" class="opened"><td :colspan="columns.length + 6"><OpenedComponent :component="component" :priced="priced.get(component.id)!" /></td></tr>
        </template>
      </tbody>
      <tbody>
        <tr><td :colspan="columns.length + 6"><ComponentAdder @added="focusCell({ component: $event, column: 1 })" /></td></tr>
        <tr class="total" data-testid="estimate-total">
          <td :colspan="columns.length + 1">Total{{ store.priced!.unpriced ? `, ${store.priced!.unpriced} not counted` : '' }}{{ estimate.discountPercent !== '0' ? `, less ${estimate.discountPercent} % discount` : '' }}{{ estimate.taxPercent !== '0' ? `, with ${estimate.taxPercent} % tax` : '' }}</td>
          <td class="n"><ExplainedFigure :text="store.priced!.totals.upfront" :component="null" figure="upfront" /></td><td class="n"><ExplainedFigure :text="store.priced!.totals.monthly" :component="null" figure="monthly" /></td><td class="n"><ExplainedFigure :text="store.priced!.totals.effectiveMonthly" :component="null" figure="effectiveMonthly" /></td><td class="n"><ExplainedFigure :text="store.priced!.totals.firstYear" :component="null" figure="firstYear" /></td><td class="n"><ExplainedFigure :text="store.priced!.totals.wholeTerm" :component="null" figure="wholeTerm" /></td>
        </tr>
      </tbody>
    </table>
    <p class="minor keys">Arrows move, Enter edits or opens, Tab goes on, Esc leaves; Delete on a name takes the row out, Ctrl D doubles it, Ctrl Z undoes.</p>
  </div>
</template>

<style scoped>
.sheet { overflow-x: auto; }
.sheet th { white-space: normal; }
.sheet :deep(th), .sheet :deep(td) { padding-inline: 5px; }
.part td { background: var(--paper-sunk); font: 600 13px var(--serif); }
.partname { background: none; font: inherit; width: 100%; min-height: 24px; border-radius: 3px; padding: 0 2px; }
.cell { cursor: default; white-space: nowrap; }
.cell.focusable:not(:first-child) { color: var(--act); font-weight: 560; cursor: pointer; }
.cell:focus { outline: 2px solid var(--act); outline-offset: -2px; }
.cell.wrong { background: var(--bad-soft); color: var(--bad) !important; }
.cell.default.focusable:not(:first-child)::before { content: '•'; color: var(--warn); margin-right: 4px; }
.twist { color: var(--ink-3); display: inline-block; width: 12px; }
.editor { width: 100%; min-width: 70px; max-width: 170px; height: 24px; border: 1px solid var(--act); border-radius: 2px; background: var(--paper-raised); color: var(--ink); padding: 0 4px; font-weight: 400; }
.opened > td { padding: 0; }
.keys { margin-top: 6px; }
</style>
