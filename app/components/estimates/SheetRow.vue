<script setup lang="ts">
import { rowLabel } from '../../../core/estimate/sheet/row-name'
import { replacedText } from '../../../core/estimate/scenarios/equivalent'
import type { Component } from '../../../core/estimate/estimate'
import { evaluate } from '../../../core/working/working'
import type { FigureColumn } from '../../../core/estimate/sheet/columns'
import { rowDifference, rowFigure } from '../../../core/estimate/sheet/column-sums'
import { sheetKey } from '../../composables/useSheet'

/** One component in the sheet. */
const props = defineProps<{ component: Component; index: number }>()
const store = useEstimate()
const sheet = inject(sheetKey)!
const { active, selected, editing, typed, opened, menuFor, inputColumns, figureColumns, comparing, shownRows, dragged } = sheet
const { rowOf, fieldAt, value, cellText, take, options, sizesOf, isActive, focusCell, edit, commit } = sheet
const { onKey, onEditKey, onWheel, prices, drop } = sheet

const row = computed(() => rowOf(props.component.id))
const unit = computed(() => row.value?.unitPrice)
const isDefault = (name: string) =>
  name !== 'where' && !props.component.confirmed.includes(name) && !store.isOverridden(props.component.id, name)
const text = (column: FigureColumn) => {
  const working = rowFigure(props.component.id, column, prices.value)
  return working ? evaluate(working).toFixed() : null
}
const inColumn = (column: FigureColumn) => store.columns[column.at]!.byId.get(props.component.id)
/** Null where one of the two columns cannot price the row: it is not compared. */
const difference = (column: FigureColumn) => rowDifference(props.component.id, column, prices.value)
const why = (column: FigureColumn) => Object.values(inColumn(column)?.problems ?? {})[0]
const signed = (amount: string) => signedMoney(amount, store.currency, '')
/** The list of a choice is left without taking anything. */
function leave(component: Component, at: number) {
  if (!editing.value) return
  editing.value = false
  void focusCell({ component: component.id, column: at }, true)
}
const isFirst = (at: number) => !active.value && props.component === shownRows.value[0] && at === 0
</script>

<template>
  <tr
    :data-index="index"
    :class="{ chosen: active?.component === component.id, muted: component.muted }"
    class="row"
    @dragover.prevent
    @drop="drop(component.id, component.part)"
  >
    <td
      v-for="(column, at) in inputColumns"
      :key="column.key"
      role="gridcell"
      :data-cell="`${component.id}-${at}`"
      class="cell"
      :class="{
        n: column.number,
        focusable: at === 0 || fieldAt(component, at),
        wrong: fieldAt(component, at) && row?.problems[fieldAt(component, at)!.name],
        default: fieldAt(component, at) && isDefault(fieldAt(component, at)!.name),
        own: fieldAt(component, at) && store.isOverridden(component.id, fieldAt(component, at)!.name),
        within: selected.size > 1 && selected.has(component.id) && active?.column === at,
      }"
      :tabindex="isActive(component.id, at) || isFirst(at) ? 0 : -1"
      :title="
        fieldAt(component, at) ? (row?.problems[fieldAt(component, at)!.name] ?? fieldAt(component, at)!.help) : component.note || undefined
      "
      @click="at === 0 || isActive(component.id, at) ? edit(component, at) : focusCell({ component: component.id, column: at })"
      @dblclick="at > 0 && edit(component, at)"
      @focus="active = { component: component.id, column: at }"
      @keydown="onKey($event, component, at)"
      @contextmenu.prevent="menuFor = component.id"
    >
      <template v-if="at === 0"
        ><span class="grip" draggable="true" aria-hidden="true" title="drag to move" @click.stop @dragstart="dragged = component.id">⠿</span
        ><span class="twist" aria-hidden="true">{{ opened === component.id ? '▾' : '▸' }}</span> {{ rowLabel(component)
        }}<span v-if="component.note" class="noted" title="has a note"> ✎</span
        ><span v-if="component.muted" class="minor"> muted</span></template
      >
      <template v-else-if="fieldAt(component, at)">
        <template v-if="editing && isActive(component.id, at)">
          <ChoiceEditor
            v-if="fieldAt(component, at)!.type === 'choice'"
            :options="options(component, fieldAt(component, at)!)"
            :sizes="sizesOf(component, fieldAt(component, at)!)"
            :chosen="value(component, fieldAt(component, at)!)"
            :begun="typed"
            :label="fieldAt(component, at)!.label"
            @take="(chosen, how) => take(component, at, chosen, how)"
            @leave="leave(component, at)"
          />
          <input
            v-else
            v-model="typed"
            class="editor"
            :class="{ n: column.number }"
            :aria-label="fieldAt(component, at)!.label"
            @keydown="onEditKey($event, component, at)"
            @wheel="onWheel($event, component, at)"
            @blur="commit(component, at)"
            @click.stop
          />
        </template>
        <template v-else>{{ cellText(component, fieldAt(component, at)!) }}</template>
      </template>
    </td>
    <td v-if="!comparing" class="n first unit">
      {{ unit ? `${fullPrice(unit.value)} ${unit.currency === store.currency ? '' : unit.currency}/${unit.per}` : '–' }}
    </td>
    <td v-for="column in figureColumns" :key="column.key" class="n" :class="{ first: column.first }">
      <span
        v-if="column.difference"
        :class="Number(difference(column) ?? 0) > 0 ? 'bad' : 'good'"
        :title="difference(column) === null ? 'not compared: one of the two has no price for it' : undefined"
        >{{ difference(column) === null ? 'n/c' : signed(difference(column)!) }}</span
      >
      <span v-else-if="text(column) === null && !component.muted && why(column)" class="lacking" :title="why(column)">{{
        inColumn(column)?.notOffered ? 'not offered' : 'not priced'
      }}</span>
      <template v-else
        ><span
          v-if="column.at > 0 && inColumn(column)?.replaced.length"
          class="swap"
          role="img"
          :title="replacedText(inColumn(column)!.replaced)"
          :aria-label="`replaced there: ${replacedText(inColumn(column)!.replaced)}`"
          >≈</span
        ><ExplainedFigure
          :text="text(column)"
          :asked="{ of: 'row', component: component.id, way: null, figure: column.figure }"
          :scenario="store.columns[column.at]!.scenario"
      /></template>
    </td>
  </tr>
</template>

<style scoped>
.lacking {
  color: var(--bad);
  font-size: 11.5px;
  white-space: nowrap;
}
.swap {
  color: var(--warn);
  margin-right: 3px;
  cursor: help;
}
/* the height that the sheet counts on */
.row {
  height: 29px;
}
.cell {
  cursor: default;
  white-space: nowrap;
  max-width: 170px;
  overflow: hidden;
  text-overflow: ellipsis;
}
.cell.focusable:not(:first-child) {
  color: var(--act);
  font-weight: 560;
  cursor: pointer;
}
.cell:focus {
  outline: 2px solid var(--act);
  outline-offset: -2px;
}
.cell.within {
  background: var(--act-soft);
  box-shadow: inset 0 0 0 1px var(--act);
}
.cell.wrong {
  background: var(--bad-soft);
  color: var(--bad) !important;
}
.cell.default.focusable:not(:first-child)::before {
  content: '•';
  color: var(--warn);
  margin-right: 4px;
}
.cell.own {
  text-decoration: underline;
  text-decoration-style: double;
  text-decoration-color: var(--warn);
  text-underline-offset: 3px;
}
.twist {
  color: var(--ink-3);
  display: inline-block;
  width: 11px;
}
:where(.row) {
  background: var(--paper);
}
/* the name stays in sight beside columns that are scrolled to */
.cell:first-child {
  position: sticky;
  left: 0;
  z-index: 1;
  background: inherit;
  padding-left: 14px !important;
}
.grip {
  display: none;
  position: absolute;
  left: 3px;
  color: var(--ink-3);
  cursor: grab;
  font-size: 11px;
}
tr:hover .grip {
  display: inline;
}
.unit {
  color: var(--ink-2);
}
.muted td {
  color: var(--ink-3);
  text-decoration: line-through;
}
.noted {
  color: var(--warn);
}
.editor {
  width: 100%;
  min-width: 70px;
  max-width: 180px;
  height: 24px;
  border: 1px solid var(--act);
  border-radius: 2px;
  background: var(--paper-raised);
  color: var(--ink);
  padding: 0 4px;
  font-weight: 400;
}
</style>
