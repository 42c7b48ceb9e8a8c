<script setup lang="ts">
import { tableColumns, type TableColumn } from '../../../core/spend/table'

/** What runs across the table of spend, and which columns it has in which order; its exports. */
const emit = defineEmits<{ forgetWidths: [] }>()
const spend = useSpend()
const actions = useSpendActions()
const { options } = useDimensionOptions()
/** What the choices say: they answer at once, the table follows. */
const asked = computed(() => spend.sentence!)
const choosing = ref(false)

function tickColumn(column: TableColumn) {
  const list = asked.value.columns
  actions.go({ columns: list.includes(column) ? list.filter(c => c !== column) : [...list, column] })
}
function moveColumn(column: TableColumn, step: number) {
  const list = asked.value.columns
  const at = list.indexOf(column)
  if (at + step < 0 || at + step >= list.length) return
  actions.go({ columns: list.toSpliced(at, 1).toSpliced(at + step, 0, column) })
}
const acrossOptions = computed(() => [
  { value: '', label: 'nothing' },
  { value: 'start', label: `time, each ${asked.value.grain}` },
  ...options.value.filter(o => !asked.value.splitBy.includes(o.value)),
])
const acrossText = computed(() => {
  const { across, grain } = asked.value
  return across === null ? 'nothing' : across === 'start' ? `each ${grain}` : dimensionLabel(across)
})
</script>

<template>
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
          <button class="link" @click="emit('forgetWidths')">reset widths</button>
        </div>
      </template>
    </UPopover>
    <ExportMenu />
  </div>
</template>

<style scoped>
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
