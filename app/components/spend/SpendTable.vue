<script setup lang="ts">
import { useVirtualizer } from '@tanstack/vue-virtual'
import { useLocalStorage } from '@vueuse/core'
import { spendTable, tableColumns, type TableColumn, type TableHead, type TableRow } from '../../../core/spend/table'

/**
 * Every combination of values with its amounts: nested by its dimensions, turned into a pivot where something runs across, sorted by any
 * column;
 * always sums to the total, and shows it.
 */
const spend = useSpend()
const actions = useSpendActions()
const { openMenu, onKey } = useValueKeys()
const { options } = useDimensionOptions()
const view = computed(() => spend.shown!)
/** What the choices above the table say: they answer at once, the table follows. */
const asked = computed(() => spend.view!)
const isRatio = computed(() => !spend.additive)

const table = computed(() => {
  const now = view.value.across ? spend.across : spend.nowAnswer
  if (!now) return null
  return spendTable(now, spend.beforeAnswer, {
    measure: view.value.measure,
    splitBy: view.value.splitBy,
    companions: {},
    across: view.value.across,
    currency: spend.currency,
    columns: spend.tableColumns,
    days: Math.max(1, spend.groups[0]?.days ?? 1),
    ...(spend.byDays && { byDays: spend.byDays }),
  })
})
/** Columns of figures: what runs across, the amount, and those chosen. */
const figures = computed(() => table.value?.heads.filter(head => head.kind !== 'text') ?? [])
const offset = computed(() => view.value.splitBy.length)
const headText = (head: TableHead) => {
  if (head.value !== undefined)
    return view.value.across === 'start'
      ? startText(head.value ?? '', view.value.grain)
      : spend.labelOf(view.value.across!, head.value, null)
  if (head.column === 'amount')
    return view.value.across ? (isRatio.value ? 'over all' : 'total') : `${shortMeasure[view.value.measure]}, ${spend.currency}`
  if (head.column === 'before') return spend.compared ? periodText(spend.compared) : 'before'
  return head.column && head.column !== 'rest' ? columnNames[head.column] : head.id
}

// sorting: by the amount unless another column is chosen; names sort A to Z
const sort = ref<{ column: string; down: boolean }>({ column: 'amount', down: true })
const labels = computed(() => new Map(spend.rows.map(row => [row.id, row.label])))
const nameOf = (row: TableRow, index: number) =>
  spend.labelOf(
    view.value.splitBy[index]!,
    row.values[index]!,
    view.value.splitBy.length === 1
      ? labels.value.get(JSON.stringify(row.values))
      : companionNames.value.get(`${index} ${row.values[index]}`),
  )
/** Names of ids in a table of several dimensions. */
const companionNames = computed(() => {
  const found = new Map<string, string>()
  view.value.splitBy.forEach((dimension, index) => {
    const companion = companionOf[dimension]
    if (companion)
      for (const row of spend.nowAnswer?.rows ?? [])
        if (row.values[companion]) found.set(`${index} ${row.values[dimension]}`, row.values[companion])
  })
  return found
})
const places = computed(() => new Map(table.value?.heads.map((head, i) => [head.id, i])))
const cell = (row: TableRow, id: string) => row.cells[places.value.get(id) ?? -1] ?? null

/** A line of the table: a row, or the sum of all rows that begin with the same values, which can be opened and closed. */
type Line = { key: string; level: number; row: TableRow; open: boolean | null; count: number }
const closed = ref(new Set<string>())
watch(
  () => view.value.splitBy.join(),
  () => {
    closed.value = new Set()
  },
)
const sortedRows = computed(() => {
  const rows = [...(table.value?.rows ?? [])]
  const { column, down } = sort.value
  const place = view.value.splitBy.indexOf(column)
  if (place >= 0) return rows.sort((a, b) => (down ? -1 : 1) * nameOf(a, place).localeCompare(nameOf(b, place)))
  return byNumber(rows, column, down)
})

/** Sorts by a column of figures, which are turned into numbers once. */
function byNumber(rows: TableRow[], column: string, down: boolean): TableRow[] {
  const numbers = new Map(rows.map(row => [row, Number(cell(row, column) ?? '0')]))
  return rows.sort((a, b) => (down ? -1 : 1) * (numbers.get(a)! - numbers.get(b)!))
}
const lines = computed<Line[]>(() => nest(sortedRows.value, 0, '[]'))

function nest(rows: TableRow[], level: number, parent: string): Line[] {
  const depth = view.value.splitBy.length
  if (level >= depth - 1 || isRatio.value)
    return rows.map(row => ({ key: JSON.stringify(row.values), level: isRatio.value ? 0 : level, row, open: null, count: 1 }))
  const groups = new Map<string, TableRow[]>()
  for (const row of rows) {
    const key = JSON.stringify(row.values.slice(0, level + 1))
    const known = groups.get(key)
    if (known) known.push(row)
    else groups.set(key, [row])
  }
  const summed = [...groups].map(([key, members]) => ({ key, members, sum: sumOf(members, level) }))
  const { column, down } = sort.value
  if (!view.value.splitBy.includes(column))
    summed.sort((a, b) => (down ? -1 : 1) * (Number(cell(a.sum, column) ?? '0') - Number(cell(b.sum, column) ?? '0')))
  return summed.flatMap(({ key, members, sum }) => {
    const open = !closed.value.has(key)
    return [{ key: `${parent}${key}`, level, row: sum, open, count: members.length }, ...(open ? nest(members, level + 1, key) : [])]
  })
}
/** The sum of rows: amounts add, shares add, changes are worked out anew. */
function sumOf(rows: TableRow[], level: number): TableRow {
  const heads = table.value!.heads
  const add = (i: number) => addTexts(rows.map(row => row.cells[i] ?? '0'))
  const at = (column: string) => heads.findIndex(head => head.column === column)
  const cells = heads.map((head, i) => {
    if (head.kind === 'text') return i <= level ? rows[0]!.cells[i]! : null
    if (head.column === 'changeShare') {
      if (at('before') < 0 || rows.every(row => row.cells[at('before')] === null)) return null
      const share = changeShare(add(at('amount')), add(at('before')))
      return share === null ? null : String(share)
    }
    return rows.every(row => row.cells[i] === null) ? null : add(i)
  })
  return { values: rows[0]!.values.slice(0, level + 1), cells, amount: add(at('amount')), wasThere: rows.some(row => row.wasThere) }
}
function toggle(line: Line) {
  const key = JSON.stringify(line.row.values)
  const next = new Set(closed.value)
  if (next.has(key)) next.delete(key)
  else next.add(key)
  closed.value = next
}

const cellText = (head: TableHead, value: string | null) =>
  value === null ? '–' : head.kind === 'share' ? percentFigure(head, value) : measured(value, spend.currency, view.value.measure)
const percentFigure = (head: TableHead, value: string) =>
  head.column === 'changeShare'
    ? percentText(Number(value))
    : `${(Number(value) * 100).toLocaleString(undefined, { minimumFractionDigits: 1, maximumFractionDigits: 1 })} %`
const target = (row: TableRow, index: number) => ({
  dimension: view.value.splitBy[index]!,
  value: row.values[index]!,
  label: nameOf(row, index),
})
const idBeside = (row: TableRow, index: number) =>
  companionOf[view.value.splitBy[index]!] && row.values[index] !== null && nameOf(row, index) !== row.values[index]
    ? row.values[index]
    : null

// thousands of rows: only those in sight are there
const frame = useTemplateRef<HTMLElement>('frame')
const MANY = 60
const long = computed(() => lines.value.length > MANY)
const ROW = 28
const virtual = useVirtualizer(
  computed(() => ({
    count: lines.value.length,
    getScrollElement: () => frame.value,
    estimateSize: () => ROW,
    overscan: 12,
    enabled: long.value,
  })),
)
const shown = computed(() =>
  long.value
    ? virtual.value
        .getVirtualItems()
        .map(item => lines.value[item.index]!)
        .filter(Boolean)
    : lines.value,
)
const above = computed(() => (long.value ? (virtual.value.getVirtualItems()[0]?.start ?? 0) : 0))
const below = computed(() => (long.value ? virtual.value.getTotalSize() - (virtual.value.getVirtualItems().at(-1)?.end ?? 0) : 0))

function sortBy(column: string) {
  sort.value = sort.value.column === column ? { column, down: !sort.value.down } : { column, down: !view.value.splitBy.includes(column) }
}
const sortMark = (column: string) => (sort.value.column === column ? (sort.value.down ? 'descending' : 'ascending') : undefined)

// columns are chosen, ordered and made wider or narrower; widths are the reader's own
const choosing = ref(false)
const widths = useLocalStorage<Record<string, number>>('rain-barrel-spend-widths', {})
const widthOf = (id: string) =>
  widths.value[id] ? { width: `${widths.value[id]}px`, minWidth: `${widths.value[id]}px`, maxWidth: `${widths.value[id]}px` } : {}
function resize(event: PointerEvent, id: string) {
  const head = (event.currentTarget as HTMLElement).closest('th')!
  const from = event.clientX
  const before = head.offsetWidth
  const moved = (move: PointerEvent) => {
    widths.value = { ...widths.value, [id]: Math.max(48, before + move.clientX - from) }
  }
  const done = () => {
    window.removeEventListener('pointermove', moved)
    window.removeEventListener('pointerup', done)
  }
  window.addEventListener('pointermove', moved)
  window.addEventListener('pointerup', done)
}
function resizeByKey(event: KeyboardEvent, id: string) {
  const step = event.key === 'ArrowLeft' ? -12 : event.key === 'ArrowRight' ? 12 : 0
  if (!step) return
  event.preventDefault()
  const head = (event.currentTarget as HTMLElement).closest('th')!
  widths.value = { ...widths.value, [id]: Math.max(48, head.offsetWidth + step) }
}
function tickColumn(column: TableColumn) {
  const list = asked.value.columns
  actions.go({ columns: list.includes(column) ? list.filter(c => c !== column) : [...list, column] })
}
function moveColumn(column: TableColumn, step: number) {
  const list = [...asked.value.columns]
  const at = list.indexOf(column)
  const to = at + step
  if (to < 0 || to >= list.length) return
  list.splice(at, 1)
  list.splice(to, 0, column)
  actions.go({ columns: list })
}
const acrossOptions = computed(() => [
  { value: '', label: 'nothing' },
  { value: 'start', label: `time, each ${asked.value.grain}` },
  ...options.value.filter(o => !asked.value.splitBy.includes(o.value)),
])
const acrossText = computed(() =>
  asked.value.across === null
    ? 'nothing'
    : asked.value.across === 'start'
      ? `each ${asked.value.grain}`
      : dimensionLabel(asked.value.across),
)
const hasLines = computed(() => !view.value.across && spend.lines.size > 0 && spend.starts.length > 1)
const lineOf = (line: Line) => (line.open === null ? spend.lines.get(JSON.stringify(line.row.values)) : undefined)
</script>

<template>
  <section v-if="table" class="all" aria-label="All values">
    <div class="bar">
      <span class="minor"
        >across
        <SentenceChoice
          label="across the table"
          :options="acrossOptions"
          :chosen="asked.across ?? ''"
          :text="acrossText"
          @choose="actions.go({ across: $event || null })"
      /></span>
      <UPopover v-model:open="choosing">
        <button class="link">Columns</button>
        <template #content>
          <div class="chooser" role="group" aria-label="Columns of the table">
            <div v-for="column in [...asked.columns, ...tableColumns.filter(c => !asked.columns.includes(c))]" :key="column" class="choice">
              <label
                ><input type="checkbox" :checked="asked.columns.includes(column)" @change="tickColumn(column)" />
                {{ columnNames[column] }}</label
              >
              <template v-if="asked.columns.includes(column)"
                ><button class="move" :aria-label="`move ${columnNames[column]} left`" @click="moveColumn(column, -1)">←</button
                ><button class="move" :aria-label="`move ${columnNames[column]} right`" @click="moveColumn(column, 1)">→</button></template
              >
            </div>
            <button class="link" @click="widths = {}">widths as they were</button>
          </div>
        </template>
      </UPopover>
      <ExportMenu />
    </div>
    <div ref="frame" class="frame" tabindex="0" role="group" aria-label="rows" :class="{ long }">
      <table class="ledger">
        <caption class="sr-only">
          {{
            measureNames[view.measure]
          }}
          in
          {{
            spend.currency
          }},
          {{
            periodText(spend.period)
          }}
        </caption>
        <thead>
          <tr>
            <th
              v-if="view.splitBy.length"
              :style="widthOf('names')"
              :aria-sort="view.splitBy.includes(sort.column) ? sortMark(sort.column) : undefined"
            >
              <template v-for="(dimension, i) in view.splitBy" :key="dimension"
                ><template v-if="i"> · </template
                ><button class="sort" @click="sortBy(dimension)">{{ dimensionLabel(dimension) }}</button></template
              >
              <span
                class="grip"
                role="separator"
                tabindex="0"
                aria-label="width of the names"
                aria-orientation="vertical"
                :aria-valuenow="widths.names ?? 0"
                aria-valuetext="arrows make it narrower or wider"
                @pointerdown.prevent="resize($event, 'names')"
                @keydown="resizeByKey($event, 'names')"
              />
            </th>
            <th v-else />
            <th v-if="hasLines" class="spark"><span class="head">over time</span></th>
            <th v-for="head in figures" :key="head.id" class="n" :style="widthOf(head.id)" :aria-sort="sortMark(head.id)">
              <button class="sort" @click="sortBy(head.id)">{{ headText(head) }}</button><span
                class="grip"
                role="separator"
                tabindex="0"
                :aria-label="`width of ${headText(head)}`"
                aria-orientation="vertical"
                :aria-valuenow="widths[head.id] ?? 0"
                aria-valuetext="arrows make it narrower or wider"
                @pointerdown.prevent="resize($event, head.id)"
                @keydown="resizeByKey($event, head.id)"
              />
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-if="above" aria-hidden="true">
            <td :colspan="figures.length + 2" :style="{ height: `${above}px`, padding: 0, border: 0 }" />
          </tr>
          <tr v-for="line in shown" :key="line.key" class="acts" :class="{ sum: line.open !== null }">
            <td v-if="view.splitBy.length" class="names" :style="{ paddingLeft: `${8 + (isRatio ? 0 : line.level) * 20}px` }">
              <button
                v-if="line.open !== null"
                class="fold"
                :aria-expanded="line.open"
                :aria-label="`${line.open ? 'close' : 'open'} ${nameOf(line.row, line.level)}`"
                @click="toggle(line)"
              >
                {{ line.open ? '▾' : '▸' }}
              </button>
              <template v-for="index in isRatio ? view.splitBy.length : 1" :key="index"
                ><template v-if="index > 1"> · </template>
                <button
                  class="value"
                  :class="{ none: line.row.values[isRatio ? index - 1 : line.level] === null }"
                  @click="openMenu(target(line.row, isRatio ? index - 1 : line.level), $event.currentTarget as Element)"
                  @contextmenu.prevent="openMenu(target(line.row, isRatio ? index - 1 : line.level), $event.currentTarget as Element)"
                  @keydown="onKey($event, target(line.row, isRatio ? index - 1 : line.level))"
                >
                  {{ nameOf(line.row, isRatio ? index - 1 : line.level) }}
                </button></template
              >
              <span v-if="line.open === null && idBeside(line.row, line.level)" class="minor id">{{ idBeside(line.row, line.level) }}</span>
              <span v-if="line.open === false" class="minor id">{{ count(line.count) }}</span>
            </td>
            <td v-else>everything</td>
            <td v-if="hasLines" class="spark"><SparkLine v-if="lineOf(line)" :amounts="lineOf(line)!" /></td>
            <td
              v-for="(head, i) in figures"
              :key="head.id"
              class="n"
              :class="{ pale: line.row.cells[offset + i] === '0' && head.value !== undefined }"
              :title="line.row.cells[offset + i] ?? ''"
            >
              <ChangeMark
                v-if="head.column === 'changeShare'"
                :share="line.row.cells[offset + i] === null ? null : Number(line.row.cells[offset + i])"
                :fresh="!line.row.wasThere"
              /><template v-else>{{ cellText(head, line.row.cells[offset + i] ?? null) }}</template>
            </td>
          </tr>
          <tr v-if="below > 0" aria-hidden="true">
            <td :colspan="figures.length + 2" :style="{ height: `${below}px`, padding: 0, border: 0 }" />
          </tr>
        </tbody>
        <tfoot>
          <tr class="total" data-testid="table-total">
            <td>{{ isRatio ? 'Whole cost by whole quantity' : `Total of ${count(table.rows.length)}` }}</td>
            <td v-if="hasLines" />
            <td v-for="(head, i) in figures" :key="head.id" class="n" :title="table.total.cells[offset + i] ?? ''">
              <ChangeMark v-if="head.column === 'changeShare'" :now="spend.total" :before="spend.totalBefore" /><template v-else>{{
                cellText(head, table.total.cells[offset + i] ?? null)
              }}</template>
            </td>
          </tr>
        </tfoot>
      </table>
    </div>
  </section>
</template>

<style scoped>
.all {
  margin-top: 14px;
}
.bar {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  align-items: center;
  justify-content: flex-end;
  margin-bottom: 2px;
}
.bar :deep(.control) {
  color: var(--act);
  font-weight: 560;
  min-height: 24px;
}
.frame {
  overflow-x: auto;
  position: relative;
}
.frame.long {
  max-height: 560px;
  overflow: auto;
  border-bottom: 1px solid var(--line);
}
.frame.long thead th {
  position: sticky;
  top: 0;
  background: var(--paper);
  z-index: 2;
}
.frame.long tfoot td {
  position: sticky;
  bottom: 0;
  z-index: 2;
}
th {
  position: relative;
}
.grip {
  position: absolute;
  right: -3px;
  top: 4px;
  bottom: 4px;
  width: 7px;
  cursor: col-resize;
  border-radius: 2px;
}
.grip:hover,
.grip:focus-visible {
  background: var(--act-soft);
  border-right: 2px solid var(--act);
}
.names {
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.fold {
  width: 24px;
  min-height: 24px;
  margin-left: -6px;
  color: var(--ink-3);
}
.value {
  min-height: 24px;
  text-align: left;
  border-radius: 3px;
}
.value:hover {
  color: var(--act);
  text-decoration: underline;
  text-underline-offset: 3px;
}
.value.none {
  font-style: italic;
  color: var(--ink-2);
}
tr.sum td {
  font-weight: 560;
}
.pale {
  color: var(--ink-3);
}
.id {
  margin-left: 8px;
}
.sort {
  min-height: 24px;
  font-weight: 560;
}
.sort:hover {
  color: var(--act);
}
.spark {
  width: 100px;
}
.head {
  display: inline-block;
  min-height: 24px;
  line-height: 24px;
}
.chooser {
  padding: 8px 12px;
  display: grid;
  gap: 2px;
  min-width: 220px;
}
.choice {
  display: flex;
  align-items: center;
  gap: 4px;
  min-height: 26px;
}
.choice label {
  flex: 1;
  display: flex;
  gap: 8px;
  align-items: center;
}
.move {
  width: 24px;
  height: 24px;
  border-radius: 3px;
}
.move:hover {
  background: var(--act-soft);
}
</style>
