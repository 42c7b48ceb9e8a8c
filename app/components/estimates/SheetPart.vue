<script setup lang="ts">
import type { DecimalText } from '../../../core/money/decimal'
import { sheetKey } from '../../composables/useSheet'

/** A part of the workload: its name, which is typed over, and what its rows come to in each column. */
const { part } = defineProps<{ part: string; sums: readonly DecimalText[]; index: number; span: number }>()
const store = useEstimate()
const { figureColumns, drop } = inject(sheetKey)!
const firstRow = computed(() => store.estimate!.components.find(row => row.part === part)?.id ?? null)
const rename = (event: Event) => store.renamePart(part, (event.target as HTMLInputElement).value)
</script>

<template>
  <tr :data-index="index" class="part" @dragover.prevent @drop="drop(firstRow, part)">
    <td :colspan="span">
      <input
        v-held="part"
        class="partname"
        aria-label="part of the workload"
        @change="rename"
        @keydown.enter="($event.target as HTMLInputElement).blur()"
      />
    </td>
    <td
      v-for="(column, i) in figureColumns"
      :key="column.key"
      class="n"
      :class="{ first: column.first, [toneOf(sums[i] ?? '0')]: column.difference }"
    >
      <template v-if="column.difference">{{ signedMoney(sums[i] ?? '0', store.currency) }}</template>
      <ExplainedFigure
        v-else
        :text="sums[i] ?? '0'"
        :asked="{ of: 'part', part, figure: column.figure }"
        :scenario="store.columns[column.at]!.scenario"
      />
    </td>
  </tr>
</template>

<style scoped>
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
</style>
