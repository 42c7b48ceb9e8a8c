<script setup lang="ts">
import { readableEndings } from '../../../shared/readable-files'

/** What can be dropped, in words; everything where nothing is said. */
const { what = undefined } = defineProps<{ what?: string }>()
const emit = defineEmits<{ files: [File[]] }>()
const over = ref(false)
const picker = useTemplateRef<HTMLInputElement>('picker')

function take(list: FileList | null | undefined) {
  over.value = false
  if (list?.length) emit('files', [...list])
}
function picked() {
  take(picker.value?.files)
  if (picker.value) picker.value.value = ''
}
</script>

<template>
  <div
    class="droparea"
    :class="{ over }"
    @dragover.prevent="over = true"
    @dragleave="over = false"
    @drop.prevent="take($event.dataTransfer?.files)"
  >
    <span>{{
      what ??
      'Drop a bill here: FOCUS 1.0 to 1.2 as CSV (plain or gzip) or Parquet, or any other CSV. Rate cards, cost centres, lookups, business measures, measurements, account trees, invoices and exchange rates too.'
    }}</span>
    <button class="button" @click="picker?.click()">Choose files</button>
    <input
      ref="picker"
      type="file"
      multiple
      :accept="readableEndings.join()"
      class="sr-only"
      tabindex="-1"
      aria-label="Files to load"
      @change="picked"
    />
  </div>
</template>

<style scoped>
.droparea {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 16px;
  border: 1.5px dashed var(--edge);
  border-radius: 6px;
  padding: 10px 14px;
  margin: 10px 0 12px;
  color: var(--ink-2);
}
.droparea.over {
  border-color: var(--act);
  background: var(--act-soft);
  color: var(--ink);
}
.droparea .button {
  margin-left: auto;
}
</style>
