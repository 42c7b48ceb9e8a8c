<script setup lang="ts">
import { useWindowVirtualizer } from '@tanstack/vue-virtual'
import { evaluate } from '../../../core/working/working'
import type { Component } from '../../../core/estimate/estimate'
import { figureNames, figureWords } from '../../../core/estimate/pricing/price-estimate'
import { notCounted } from '../../../core/estimate/scenarios/compare'
import type { FigureColumn } from '../../../core/estimate/sheet/columns'
import type { SheetItem } from '../../../core/estimate/sheet/items'
import { sheetKey, type Sheet } from '../../composables/useSheet'

/** The sheet: rows are components, cells are edited in place, everything by keyboard. Only the rows in sight are in the page. */
const store = useEstimate()
const grid = useTemplateRef<HTMLElement>('grid')
const sheet: Sheet = useSheet(grid, index => virtual.value.scrollToIndex(index, { align: 'center' }))
provide(sheetKey, sheet)
const { items, inputColumns, figureColumns, comparing, compared, menuFor, said, focusCell, drop } = sheet

/** Every row of a component is as high as the style says: it need not be measured while one scrolls. */
const ROW_HEIGHT = 29
const top = ref(0)
onMounted(() => {
  top.value = (grid.value?.getBoundingClientRect().top ?? 0) + window.scrollY + 48
})
const virtual = useWindowVirtualizer(
  computed(() => ({
    count: items.value.length,
    overscan: 6,
    scrollMargin: top.value,
    getItemKey: (index: number) => items.value[index]?.key ?? index,
    estimateSize: (index: number) => (items.value[index]?.is === 'opened' ? 440 : ROW_HEIGHT),
  })),
)
const visible = computed(() => virtual.value.getVirtualItems())
const before = computed(() => (visible.value.length ? visible.value[0]!.start - top.value : 0))
const after = computed(() => (visible.value.length ? virtual.value.getTotalSize() - (visible.value.at(-1)!.end - top.value) : 0))
const measure = (element: unknown) => element && virtual.value.measureElement(element as Element)
/** Columns before the amounts; the unit price gives way to the scenarios. */
const leading = computed(() => inputColumns.value.length + (comparing.value ? 0 : 1))
const span = computed(() => leading.value + figureColumns.value.length)

const groups = computed(() =>
  store.columns.map((column, at) => ({
    at,
    id: column.scenario,
    name: at ? store.estimate!.scenarios[at - 1]!.name : 'as it stands',
    width: figureColumns.value.filter(f => f.at === at).length,
  })),
)
const partSums = computed(
  () =>
    new Map(
      store.parts.map(part => [
        part,
        figureColumns.value.map(column => {
          const priced = store.columns[column.at]!
          return addTexts(
            store
              .estimate!.components.filter(c => c.part === part && (column.difference || priced.counted.has(c.id)))
              .map(c =>
                column.difference
                  ? (differences.value.get(store.columns[column.at]!.scenario!)?.rows.get(c.id)?.amount ?? '0')
                  : evaluate(sheet.figure(c.id, column)!).toFixed(),
              ),
          )
        }),
      ]),
    ),
)
const differences = computed(() => store.differences(compared.value))
const totalOf = (column: FigureColumn) =>
  column.difference
    ? (differences.value.get(store.columns[column.at]!.scenario!)?.total.amount ?? '0')
    : evaluate(store.columns[column.at]!.total[column.figure]).toFixed()
const shareOf = (column: FigureColumn) => differences.value.get(store.columns[column.at]!.scenario!)?.total.share
const shown = (text: string) => (Number(text) === 0 ? '–' : money(roundText(text), store.currency))
const signed = (text: string) => signedMoney(text, store.currency)
const tone = (text: string) => (Number(text) > 0 ? 'bad' : Number(text) < 0 ? 'good' : '')
const steps = computed(() => store.priced!.steps)
/** What each column's total lacks: said in the column, whatever figure is looked at. */
const lacks = computed(() => store.columns.map(column => notCounted(column, store.base!)))
const lacksText = (column: FigureColumn) => {
  const lack = lacks.value[column.at]
  if (!lack) return ''
  const amount = lack.amounts?.[column.figure]
  return `${count(lack.rows)} ${lack.rows === 1 ? 'row' : 'rows'} not counted${amount && Number(amount) !== 0 ? `, ${money(roundText(amount), store.currency)} in A` : ''}`
}

// the column that is looked at comes into sight; only sideways, so that nothing jumps under the hand
watch(
  () => store.scenarioId,
  async () => {
    await nextTick()
    const heading = grid.value?.querySelector('.scenario.on')?.closest('th')
    const box = heading?.closest('.sheet')
    if (!heading || !box) return
    const [own, around] = [heading.getBoundingClientRect(), box.getBoundingClientRect()]
    if (own.right > around.right) box.scrollLeft += own.right - around.right
    else if (own.left < around.left) box.scrollLeft += own.left - around.left
  },
)

const renaming = (event: Event, from: string) => store.renamePart(from, (event.target as HTMLInputElement).value)
async function added(id: string) {
  await focusCell({ component: id, column: 1 })
}
defineExpose({
  focusCell,
  openRow: (id: string) => {
    sheet.opened.value = id
  },
})
</script>

<template>
  <div ref="grid" class="sheet" :class="{ tight: comparing }" @paste="sheet.onPaste" @copy="sheet.onCopy">
    <table class="ledger" role="grid" aria-label="Components" :aria-rowcount="items.length + 1">
      <thead>
        <tr v-if="comparing" class="scenarios">
          <th :colspan="inputColumns.length">
            <label class="minor compare"
              >compare
              <select v-model="compared" class="field">
                <option v-for="name in figureNames" :key="name" :value="name">{{ figureWords[name] }}</option>
              </select></label
            >
          </th>
          <th v-for="group in groups" :key="group.at" :colspan="group.width" class="n group">
            <button
              class="scenario"
              :class="{ on: store.scenarioId === group.id }"
              :aria-pressed="store.scenarioId === group.id"
              :title="store.scenarioId === group.id ? 'Its inputs are shown and edited' : 'Show and edit its inputs'"
              @click="store.scenarioId = group.id"
            >
              {{ columnLetter(group.at) }} · {{ group.name }}
            </button>
          </th>
        </tr>
        <tr>
          <th v-for="column in inputColumns" :key="column.key" :class="{ n: column.number, name: column.key === 'name' }">
            {{ column.label }}
          </th>
          <th v-if="!comparing" class="n first">unit price</th>
          <th v-for="column in figureColumns" :key="column.key" class="n" :class="{ first: column.first }">{{ column.label }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-if="before > 0" aria-hidden="true">
          <td :colspan="span" class="space" :style="{ height: `${before}px` }" />
        </tr>
        <template v-for="place in visible" :key="String(place.key)">
          <tr
            v-if="items[place.index]?.is === 'part'"
            :ref="measure"
            :data-index="place.index"
            class="part"
            @dragover.prevent
            @drop="
              drop(
                store.estimate!.components.find(c => c.part === (items[place.index] as { part: string }).part)?.id ?? null,
                (items[place.index] as { part: string }).part,
              )
            "
          >
            <td :colspan="leading">
              <input
                v-held="(items[place.index] as { part: string }).part"
                class="partname"
                aria-label="part of the workload"
                @change="renaming($event, (items[place.index] as { part: string }).part)"
                @keydown.enter="($event.target as HTMLInputElement).blur()"
              />
            </td>
            <td
              v-for="(column, i) in figureColumns"
              :key="column.key"
              class="n"
              :class="{
                first: column.first,
                [tone(partSums.get((items[place.index] as { part: string }).part)?.[i] ?? '0')]: column.difference,
              }"
            >
              <template v-if="column.difference">{{
                signed(partSums.get((items[place.index] as { part: string }).part)?.[i] ?? '0')
              }}</template>
              <ExplainedFigure
                v-else
                :text="partSums.get((items[place.index] as { part: string }).part)?.[i] ?? '0'"
                :asked="{ of: 'part', part: (items[place.index] as { part: string }).part, figure: column.figure }"
                :scenario="store.columns[column.at]!.scenario"
              />
            </td>
          </tr>
          <SheetRow
            v-else-if="items[place.index]?.is === 'row'"
            :component="(items[place.index] as { component: Component }).component"
            :index="place.index"
            :differences="differences"
          />
          <SheetSaid
            v-else-if="items[place.index]?.is === 'said'"
            :ref="(row: unknown) => measure((row as { $el?: Element } | null)?.$el)"
            :item="items[place.index] as Extract<SheetItem, { is: 'said' }>"
            :index="place.index"
            :span="span"
          />
          <tr v-else-if="items[place.index]" :ref="measure" :data-index="place.index" class="openedrow">
            <td :colspan="span"><OpenedComponent :component="(items[place.index] as { component: Component }).component" /></td>
          </tr>
        </template>
        <tr v-if="after > 0" aria-hidden="true">
          <td :colspan="span" class="space" :style="{ height: `${after}px` }" />
        </tr>
      </tbody>
      <tbody>
        <tr @dragover.prevent @drop="drop(null, store.parts.at(-1) ?? 'Workload')">
          <td :colspan="span"><ComponentAdder @added="added" @pasted="sheet.pasteText" @stays="said = `Added ${$event}`" /></td>
        </tr>
        <template v-if="steps.length && !comparing">
          <tr class="step">
            <td :colspan="leading">Own cost, sum of the rows</td>
            <td v-for="column in figureColumns" :key="column.key" class="n">
              {{ shown(evaluate(store.priced!.cost[column.figure]).toFixed()) }}
            </td>
          </tr>
          <tr v-for="(step, index) in steps" :key="index" class="step">
            <td :colspan="leading">{{ step.label }}</td>
            <td v-for="column in figureColumns" :key="column.key" class="n">
              <ExplainedFigure
                :text="evaluate(step.figures[column.figure]).toFixed()"
                :asked="{ of: 'step', index, figure: column.figure }"
                :scenario="null"
              />
            </td>
          </tr>
        </template>
        <tr class="total" data-testid="estimate-total">
          <td :colspan="leading">
            Total{{
              store.estimate!.discounts.length && store.estimate!.discounts.some(d => d.percent !== '0')
                ? `, less ${store
                    .estimate!.discounts.filter(d => d.percent !== '0')
                    .map(d => `${d.percent} % at ${d.provider}`)
                    .join(', ')}`
                : ''
            }}{{ comparing && steps.length ? `, with ${steps.map(s => s.label).join(', ')}` : '' }}
          </td>
          <td
            v-for="column in figureColumns"
            :key="column.key"
            class="n"
            :class="{ first: column.first, [tone(totalOf(column))]: column.difference }"
          >
            <template v-if="column.difference"
              >{{ signed(totalOf(column)) }}
              <div class="share">
                {{ shareOf(column) === null || shareOf(column) === undefined ? '–' : percentText(Number(shareOf(column))) }}
              </div>
              <div v-if="lacks[column.at]" class="share" title="taken over the rows that both can price">like for like</div></template
            >
            <template v-else
              ><ExplainedFigure
                :text="totalOf(column)"
                :asked="{ of: 'total', figure: column.figure }"
                :scenario="store.columns[column.at]!.scenario"
              />
              <div v-if="lacksText(column)" class="lack">{{ lacksText(column) }}</div></template
            >
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="said" class="note" role="status">{{ said }} <button class="link" @click="said = ''">close</button></p>
    <p class="minor keys">
      Arrows move, Shift with them selects, Enter edits or opens, Tab goes on, Esc leaves. Ctrl D copies down, Alt ↑ ↓ moves a row, Alt M
      mutes it, Alt Enter opens its menu, Delete on a name takes it out, Ctrl Z undoes. A number may have a unit or be a range: 1.5 TB,
      2,000, 650..895..1100.
    </p>
    <RowMenu v-if="menuFor" :component="menuFor" @close="menuFor = null" />
  </div>
</template>

<style scoped>
.sheet th {
  white-space: normal;
}
.sheet :deep(th),
.sheet :deep(td) {
  padding-inline: 5px;
}
.sheet :deep(.first) {
  border-left: 1px solid var(--line-strong);
}
.sheet.tight :deep(table) {
  font-size: 12.5px;
}
.sheet.tight :deep(td),
.sheet.tight :deep(th) {
  padding-inline: 4px;
}
.scenarios th {
  border-bottom: 1px solid var(--line);
}
.scenario {
  font-weight: 560;
  color: var(--ink-2);
  min-height: 24px;
  border-radius: 3px;
  padding: 0 4px;
  max-width: 220px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.scenario.on {
  color: var(--act);
  text-decoration: underline;
  text-underline-offset: 4px;
  text-decoration-thickness: 2px;
}
.group {
  border-left: 1px solid var(--line-strong);
}
.compare {
  display: flex;
  gap: 6px;
  align-items: center;
  font-weight: 400;
}
.part td {
  background: var(--paper-sunk);
  font: 600 13px var(--serif);
}
.partname {
  background: none;
  font: inherit;
  width: 100%;
  min-height: 24px;
  border-radius: 3px;
  padding: 0 2px;
}
.openedrow > td {
  padding: 0 !important;
}
.space {
  padding: 0 !important;
  border: 0;
}
.step td {
  color: var(--ink-2);
}
.share {
  font-weight: 400;
  font-size: 11.5px;
}
.lack {
  font-weight: 500;
  font-size: 11px;
  line-height: 1.2;
  color: var(--bad);
  white-space: normal;
  min-width: 84px;
}
.keys {
  margin-top: 6px;
}
.good {
  color: var(--good);
}
.bad {
  color: var(--bad);
}
/* hundreds of rows scroll much faster when each cell has its own border */
.sheet {
  overflow-x: auto;
  position: relative;
}
.sheet :deep(table) {
  border-collapse: separate;
  border-spacing: 0;
}
</style>
