<script setup lang="ts">
import type { ImportStatus } from '../../../shared/contracts/imports'

/** A load taken back, or loaded again after it was; what would be left without charges is asked about first. */
const props = defineProps<{ load: ImportStatus }>()
const sources = useSources()
const asking = ref(false)
const empties = computed(() => props.load.wouldEmpty ?? [])
watch(
  () => props.load.id,
  () => {
    asking.value = false
  },
)
function undo() {
  if (empties.value.length && !asking.value) asking.value = true
  else {
    asking.value = false
    void sources.undo(props.load.id, empties.value.length > 0)
  }
}
</script>

<template>
  <div>
    <p v-if="load.canUndo && !asking">
      <button class="link" @click="undo">Undo this load</button>{{ ' ' }}
      <span class="minor">what was loaded before counts again</span>
    </p>
    <div v-else-if="load.canUndo" class="asks" role="alertdialog" aria-label="Undo this load">
      <p>
        {{ empties.map(period => `${period.source}, ${monthText(period.billingPeriodStart)}`).join(' and ') }} would have no charges at all.
      </p>
      <button class="button main" @click="undo">Undo anyway</button>{{ ' ' }}
      <button class="button" @click="asking = false">Cancel</button>
    </div>
    <p v-if="load.canRedo">
      <button class="link" @click="sources.redo(load.id)">Load it again</button>{{ ' ' }}
      <span class="minor">as it was before the undo</span>
    </p>
  </div>
</template>

<style scoped>
.asks {
  background: var(--act-soft);
  padding: 8px 10px;
  border-radius: 4px;
  margin: 6px 0;
}
.asks p {
  margin-bottom: 6px;
}
</style>
