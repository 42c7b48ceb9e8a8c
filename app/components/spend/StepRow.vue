<script setup lang="ts">
import type { SpendRow } from '../../../core/spend/page/rows'
import type { StepColumn } from '../../../core/spend/page/steps'

/** A value in a column of the Steps: how much it is, how it has changed, and what one can do with it. */
const { column, row, largest, isCounted } = defineProps<{
  column: StepColumn
  row: SpendRow
  chosen: boolean
  /** The size of the largest amount of the column. */
  largest: number
  /** Whether the column shows quantity. */
  isCounted: boolean
}>()
const emit = defineEmits<{ choose: []; walk: [event: KeyboardEvent] }>()
const spend = useSpend()
const { openMenu, onKey } = useValueKeys()
const target = computed(() => ({ dimension: column.dimension, value: row.values[0]!, label: row.label }))
const width = computed(() => `${largest ? (Math.abs(Number(row.amount)) / largest) * 100 : 0}%`)
const background = computed(() => {
  const hue = spend.hueOf(column.dimension, row.values[0]!)
  return hue === null ? 'var(--line-strong)' : `var(--c${hue + 1})`
})
const amountText = computed(() => (isCounted || !spend.isMoney ? quantity(row.amount) : whole(row.amount)))
function press(event: KeyboardEvent) {
  onKey(event, target.value)
  emit('walk', event)
}
</script>

<template>
  <div class="row">
    <button
      class="step"
      :class="{ chosen: chosen, none: row.values[0] === null }"
      :aria-pressed="chosen"
      :title="`${row.label}: ${percent(row.amount, column.total)} of the column`"
      @click="emit('choose')"
      @contextmenu.prevent="openMenu(target, $event.currentTarget as Element)"
      @keydown="press"
    >
      <span class="name">{{ row.label }}</span>
      <span class="amount">{{ amountText }}</span>
      <ChangeMark v-if="spend.comparedReach === 'whole'" class="mark" :now="row.amount" :before="row.before" />
      <span class="bar" :style="{ width, background }" />
    </button>
    <button
      class="more"
      tabindex="-1"
      :aria-label="`what to do with ${row.label}`"
      @click="openMenu(target, $event.currentTarget as Element)"
    >
      ⋯
    </button>
  </div>
</template>

<style scoped>
.row {
  position: relative;
}
.step {
  position: relative;
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto minmax(48px, auto);
  gap: 6px;
  align-items: center;
  width: 100%;
  height: 27px;
  padding: 0 10px;
  text-align: left;
}
.step:hover {
  background: color-mix(in srgb, var(--act-soft) 55%, transparent);
}
.step.chosen {
  background: var(--act-soft);
  font-weight: 620;
}
.step:focus-visible {
  outline-offset: -2px;
}
.step.none .bar {
  background: var(--hatch);
}
.step.none .name {
  font-style: italic;
  color: var(--ink-2);
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.amount {
  text-align: right;
}
.mark {
  text-align: right;
}
.bar {
  position: absolute;
  left: 0;
  bottom: 0;
  height: 3px;
  min-width: 1px;
}
.more {
  position: absolute;
  right: 2px;
  top: 1px;
  width: 24px;
  height: 24px;
  border-radius: 4px;
  background: var(--paper-raised);
  border: 1px solid var(--line-strong);
  opacity: 0;
}
.row:hover .more,
.more:focus-visible {
  opacity: 1;
}
</style>
