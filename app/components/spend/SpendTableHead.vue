<script setup lang="ts">
import type { TableHead } from '../../../core/spend/table'
import type { TableOrder } from '../../../core/spend/table-lines'
import type { ColumnWidths } from '../../composables/useColumnWidths'

/** The heads of the table of spend: each sorts by its column, and is made wider or narrower at its edge. */
const { order, hasLines, widths } = defineProps<{ figures: TableHead[]; order: TableOrder; hasLines: boolean; widths: ColumnWidths }>()
const emit = defineEmits<{ order: [order: TableOrder] }>()
const spend = useSpend()
const sentence = computed(() => spend.shown!)

function headText(head: TableHead): string {
  const { across, grain, measure } = sentence.value
  if (head.value !== undefined) return across === 'start' ? startText(head.value ?? '', grain) : spend.labelOf(across!, head.value, null)
  if (head.column === 'amount') return across ? (spend.additive ? 'total' : 'over all') : `${shortMeasure[measure]}, ${spend.currency}`
  if (head.column === 'before') return spend.compared ? periodText(spend.compared) : 'before'
  return head.column && head.column !== 'rest' ? columnNames[head.column] : head.id
}
/** The column that is sorted by already turns round; names begin with A, figures with the largest. */
const sortBy = (column: string) =>
  emit('order', { column, down: order.column === column ? !order.down : !sentence.value.splitBy.includes(column) })
const sorted = (column: string) => (order.column === column ? (order.down ? 'descending' : 'ascending') : undefined)
</script>

<template>
  <thead>
    <tr>
      <th
        v-if="sentence.splitBy.length"
        :style="widths.widthOf('names')"
        :aria-sort="sentence.splitBy.includes(order.column) ? sorted(order.column) : undefined"
      >
        <template v-for="(dimension, i) in sentence.splitBy" :key="dimension"
          ><template v-if="i"> · </template
          ><button class="sort" @click="sortBy(dimension)">{{ dimensionLabel(dimension) }}</button></template
        >
        <span
          class="grip"
          role="separator"
          tabindex="0"
          aria-label="width of the names"
          aria-orientation="vertical"
          :aria-valuenow="widths.widths.value.names ?? 0"
          aria-valuetext="arrows make it narrower or wider"
          @pointerdown.prevent="widths.resize($event, 'names')"
          @keydown="widths.resizeByKey($event, 'names')"
        />
      </th>
      <th v-else />
      <th v-if="hasLines" class="spark"><span class="head">over time</span></th>
      <th v-for="head in figures" :key="head.id" class="n" :style="widths.widthOf(head.id)" :aria-sort="sorted(head.id)">
        <button class="sort" @click="sortBy(head.id)">{{ headText(head) }}</button><span
          class="grip"
          role="separator"
          tabindex="0"
          :aria-label="`width of ${headText(head)}`"
          aria-orientation="vertical"
          :aria-valuenow="widths.widths.value[head.id] ?? 0"
          aria-valuetext="arrows make it narrower or wider"
          @pointerdown.prevent="widths.resize($event, head.id)"
          @keydown="widths.resizeByKey($event, head.id)"
        />
      </th>
    </tr>
  </thead>
</template>

<style scoped>
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
</style>
