<script setup lang="ts">
import type { SpendRow } from '../../../core/spend/page/rows'
import type { StepColumn } from '../../../core/spend/page/steps'

/**
 * The Steps: each column lists what the one to its left keeps; arrows walk them, the last column shows price parts. Any dimension in any
 * column, in money or in quantity.
 */
const spend = useSpend()
const actions = useSpendActions()
const grid = useTemplateRef<HTMLElement>('grid')
const ofText = ({ of }: StepColumn) => (of ? `of ${valueLabel(of.dimension, of.value)}, ` : '')
const order = computed(() => spend.shown!.stepOrder)

const chosen = (index: number, row: SpendRow) =>
  spend.shown!.steps[index]?.value === row.values[0] && spend.shown!.steps[index] !== undefined
/** By column the size of its largest amount. */
const largest = computed(() => spend.columns.map(({ rows }) => rows.reduce((most, row) => Math.max(most, Math.abs(Number(row.amount))), 0)))
const counted = (index: number) => spend.shown!.stepQuantity.includes(index)

function choose(index: number, column: StepColumn, row: SpendRow) {
  const steps = spend.sentence!.steps.slice(0, index)
  if (!chosen(index, row)) steps.push({ dimension: column.dimension, value: row.values[0]! })
  actions.go({ steps })
}
function setDimension(index: number, dimension: string) {
  const next = [...order.value]
  const known = next.indexOf(dimension)
  // a dimension that stands in another column already changes places with this one
  if (known >= 0) next[known] = next[index]!
  next[index] = dimension
  actions.go({ stepOrder: next, steps: spend.sentence!.steps.slice(0, Math.min(index, known >= 0 ? known : index)) })
}
function count(index: number) {
  const list = spend.sentence!.stepQuantity
  actions.go({ stepQuantity: list.includes(index) ? list.filter(i => i !== index) : [...list, index].sort() })
}

/** Arrows walk: up and down in a column, left and right between columns, opening the next where it is not open. */
async function walk(event: KeyboardEvent, index: number, column: StepColumn, row: SpendRow) {
  const buttons = (i: number) => [...(grid.value?.children[i]?.querySelectorAll<HTMLElement>('.step') ?? [])]
  const own = buttons(index)
  const at = own.indexOf(event.currentTarget as HTMLElement)
  if (event.key === 'ArrowDown') own[at + 1]?.focus()
  else if (event.key === 'ArrowUp') own[at - 1]?.focus()
  else if (event.key === 'Home') own[0]?.focus()
  else if (event.key === 'End') own.at(-1)?.focus()
  else if (event.key === 'ArrowLeft') (buttons(index - 1).find(b => b.classList.contains('chosen')) ?? buttons(index - 1)[0])?.focus()
  else if (event.key === 'ArrowRight') {
    if (!chosen(index, row)) choose(index, column, row)
    else buttons(index + 1)[0]?.focus()
  } else return
  event.preventDefault()
}
const places = computed(() => [...order.value, null])
const SHOWN_ROWS = 400

/** Takes the path into the Sentence, so that the chart, the table and what is downloaded are of it. */
const path = computed(() => spend.sentence!.steps.map(step => valueLabel(step.dimension, step.value)).join(' · '))
useSingleKey('p', () => path.value && actions.keepPath(), 'keep the path of the Steps')

// what had the focus may be gone when the Steps change: it goes to what is nearest, never to the page
let focusedColumn = -1
watch(
  () => spend.columns,
  async () => {
    if (focusedColumn < 0) return
    await nextTick()
    if (document.activeElement !== document.body) return
    for (let column = Math.min(focusedColumn, spend.columns.length - 1); column >= 0; column--) {
      const buttons = [...(grid.value?.children[column]?.querySelectorAll<HTMLElement>('.step') ?? [])]
      const next = buttons.find(button => button.classList.contains('chosen')) ?? buttons[0]
      if (next) return next.focus()
    }
  },
)
function noteFocus(event: FocusEvent) {
  focusedColumn = [...(grid.value?.children ?? [])].findIndex(column => column.contains(event.target as Node))
}
function forgetFocus(event: FocusEvent) {
  if (event.relatedTarget) focusedColumn = -1
}
</script>

<template>
  <p v-if="path" class="path">
    <button class="link" @click="actions.keepPath()">Keep this path</button>{{ ' ' }}
    <span class="minor">{{ path }}: the figures above and the table below are of the whole Sentence</span>
  </p>
  <section class="steps" aria-label="Steps" @focusin="noteFocus" @focusout="forgetFocus">
    <div
      ref="grid"
      class="grid"
      :style="{ gridTemplateColumns: `repeat(${places.length}, minmax(200px, 1fr))`, minWidth: `${places.length * 200}px` }"
    >
      <div
        v-for="(dimension, index) in places"
        :key="dimension ?? 'parts'"
        class="column"
        :class="{ sunk: dimension === null, closed: dimension === null ? !spend.parts : !spend.columns[index] }"
      >
        <div class="head">
          <template v-if="dimension !== null">
            <DimensionChoice
              :chosen="dimension"
              :label="`column ${index + 1} of the Steps`"
              :text="dimensionLabel(dimension)"
              @choose="setDimension(index, $event)"
            />
            <span v-if="spend.columns[index]" class="minor of"
              >{{ ofText(spend.columns[index]!) }}{{ spend.columns[index]!.rows.length }}</span
            >
            <button
              v-if="spend.columns[index]"
              class="count"
              :aria-pressed="counted(index)"
              :title="counted(index) ? 'in quantity; press for money' : 'in money; press for quantity'"
              @click="count(index)"
            >
              {{ counted(index) ? spend.columns[index]!.unit || 'quantity' : spend.isMoney ? currencySign(spend.currency) : 'quantity' }}
            </button>
          </template>
          <span v-else>price parts</span>
        </div>
        <div v-if="dimension !== null && spend.columns[index]" class="list">
          <StepRow
            v-for="row in spend.columns[index]!.rows.slice(0, SHOWN_ROWS)"
            :key="row.id"
            :column="spend.columns[index]!"
            :row="row"
            :chosen="chosen(index, row)"
            :largest="largest[index]!"
            :is-counted="counted(index)"
            @choose="choose(index, spend.columns[index]!, row)"
            @walk="walk($event, index, spend.columns[index]!, row)"
          />
          <p v-if="spend.columns[index]!.rows.length > SHOWN_ROWS" class="minor hint">
            {{ spend.columns[index]!.rows.length - SHOWN_ROWS }} more: split the table by {{ dimensionLabel(dimension) }} to see all.
          </p>
          <p v-if="!spend.columns[index]!.rows.length" class="minor hint">
            {{ counted(index) ? 'Nothing here has a quantity.' : 'No charges.' }}
          </p>
          <p v-if="counted(index) && spend.columns[index]!.units.length > 1" class="minor hint">
            Also in {{ spend.columns[index]!.units.slice(1, 4).join(', ') }}: units never add.
          </p>
        </div>
        <StepParts v-else-if="dimension === null && spend.parts" class="list" />
        <p v-else class="minor hint">
          {{
            dimension === null
              ? `Choose a ${dimensionLabel(order.at(-1)!)} to see quantity × unit price.`
              : `Choose a ${dimensionLabel(order[index - 1]!)}.`
          }}
        </p>
      </div>
    </div>
  </section>
</template>

<style scoped>
.path {
  margin-top: 4px;
}
.steps {
  border: 1px solid var(--line-strong);
  border-radius: 4px;
  overflow-x: auto;
  margin-top: 6px;
}
.grid {
  display: grid;
}
.column {
  border-left: 1px solid var(--line-strong);
  min-width: 0;
}
.column:first-child {
  border-left: 0;
}
.column.sunk,
.column.closed {
  background: var(--paper-sunk);
}
.head {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 3px 6px 3px 10px;
  border-bottom: 1px solid var(--line-strong);
  font-size: 12px;
  font-weight: 560;
  color: var(--ink-2);
  white-space: nowrap;
  min-height: 31px;
}
.head :deep(.control) {
  min-height: 24px;
  font-weight: 560;
  text-decoration: underline;
  text-decoration-color: var(--line-strong);
  text-underline-offset: 3px;
  overflow: hidden;
  text-overflow: ellipsis;
}
.head :deep(.control):hover {
  color: var(--act);
  text-decoration-color: var(--act);
}
.of {
  overflow: hidden;
  text-overflow: ellipsis;
  font-weight: 400;
  flex: 1;
  min-width: 0;
  text-align: right;
}
.count {
  min-height: 24px;
  min-width: 24px;
  padding: 0 5px;
  border-radius: 3px;
  color: var(--ink-3);
  font-weight: 500;
  overflow: hidden;
  text-overflow: ellipsis;
  max-width: 76px;
}
.count:hover {
  background: var(--act-soft);
  color: var(--ink);
}
.count[aria-pressed='true'] {
  color: var(--act);
  font-weight: 650;
}
.list {
  max-height: 290px;
  overflow-y: auto;
}
.hint {
  padding: 8px 10px;
}
</style>
