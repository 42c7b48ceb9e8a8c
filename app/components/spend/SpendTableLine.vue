<script setup lang="ts">
import type { TableHead } from '../../../core/spend/table'
import type { TableRow } from '../../../core/spend/table-row'
import type { TableLine } from '../../../core/spend/table-lines'

/** A line of the table of spend: its value with what one can do with it, its course, its figures. */
const { line, nameOf } = defineProps<{
  line: TableLine
  figures: TableHead[]
  hasLines: boolean
  course: (string | null)[] | undefined
  nameOf: (row: TableRow, dimension: number) => string
  cellText: (head: TableHead, value: string | null) => string
}>()
const emit = defineEmits<{ toggle: [] }>()
const spend = useSpend()
const { openMenu, onKey } = useValueKeys()
const splitBy = computed(() => spend.shown!.splitBy)
const offset = computed(() => splitBy.value.length)
/** The dimensions whose values the line names: its own level; of prices, which have no levels, all. */
const named = computed(() => (spend.additive ? [line.level] : splitBy.value.map((_, place) => place)))
const target = (place: number) => ({ dimension: splitBy.value[place]!, value: line.row.values[place]!, label: nameOf(line.row, place) })
/** The id, where a name stands for it. */
const idBeside = computed(() => {
  const value = line.row.values[line.level] ?? null
  const isNamed = companionOf[splitBy.value[line.level] ?? ''] && value !== null && nameOf(line.row, line.level) !== value
  return line.open === null && isNamed ? value : null
})
</script>

<template>
  <tr class="acts" :class="{ sum: line.open !== null }">
    <td v-if="splitBy.length" class="names" :style="{ paddingLeft: `${8 + line.level * 20}px` }">
      <button
        v-if="line.open !== null"
        class="fold"
        :aria-expanded="line.open"
        :aria-label="`${line.open ? 'close' : 'open'} ${nameOf(line.row, line.level)}`"
        @click="emit('toggle')"
      >
        {{ line.open ? '▾' : '▸' }}
      </button>
      <template v-for="(place, i) in named" :key="place"
        ><template v-if="i"> · </template>
        <button
          class="value"
          :class="{ none: line.row.values[place] === null }"
          @click="openMenu(target(place), $event.currentTarget as Element)"
          @contextmenu.prevent="openMenu(target(place), $event.currentTarget as Element)"
          @keydown="onKey($event, target(place))"
        >
          {{ nameOf(line.row, place) }}
        </button></template
      >
      <span v-if="idBeside" class="minor id">{{ idBeside }}</span>
      <span v-if="line.open === false" class="minor id">{{ count(line.count) }}</span>
    </td>
    <td v-else>everything</td>
    <td v-if="hasLines" class="spark"><SparkLine v-if="course" :amounts="course" /></td>
    <td
      v-for="(head, i) in figures"
      :key="head.id"
      class="n"
      :class="{ pale: line.row.cell(offset + i) === '0' && head.value !== undefined }"
      :title="line.row.cell(offset + i) ?? ''"
    >
      <ChangeMark
        v-if="head.column === 'changeShare'"
        :share="line.row.cell(offset + i) === null ? null : Number(line.row.cell(offset + i))"
        :fresh="!line.row.wasThere"
      /><template v-else>{{ cellText(head, line.row.cell(offset + i)) }}</template>
    </td>
  </tr>
</template>

<style scoped>
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
.spark {
  width: 100px;
}
</style>
