<script setup lang="ts">
import { z } from 'zod'
import type { Mapping } from '../../../core/focus/mapping/mapping'
import { mappingPreview, type MappingPreview } from '../../../shared/contracts/mappings'
import type { Waiting } from '../../stores/sources'

/**
 * How a file that is no FOCUS becomes charges: a column, a fixed value or a product for each thing a charge says, with its first rows as
 * they would become. Kept for the source.
 */
const props = defineProps<{ delivery: Waiting }>()
const sources = useSources()
const preview = ref<MappingPreview | null>(null)
const mapping = ref<Mapping | null>(null)
const { attempt, problem, busy } = useAttempt()

const look = (given: Mapping | null) =>
  attempt(async () => {
    preview.value = await client.send(
      'POST',
      'mappings/preview',
      { source: props.delivery.source, name: props.delivery.files[0]!.name, text: props.delivery.text!.slice(0, 200_000), mapping: given },
      mappingPreview,
    )
    mapping.value ??= preview.value.mapping
  })
// a source without a name has nothing kept for it to ask for: it is asked when it has one
watch(
  () => props.delivery.source.trim(),
  name => {
    if (name && (!mapping.value || problem.value)) void look(mapping.value)
  },
  { immediate: true },
)
function change(next: Mapping) {
  mapping.value = next
  void look(next)
}
const keep = () =>
  attempt(async () => {
    await client.send('PUT', `mappings/${encodeURIComponent(props.delivery.source)}`, mapping.value, z.object({ source: z.string() }))
    await sources.loadMapped()
    sources.mapping = null
  })
</script>

<template>
  <section v-if="mapping && preview" class="panel" aria-label="Mapping">
    <div class="top">
      <h3 class="heading">How {{ delivery.files[0]!.name }} becomes charges</h3>
      <button class="link" @click="sources.mapping = null">close</button>
    </div>
    <p class="minor">
      {{
        preview.saved
          ? 'As saved for this source before.'
          : 'A first suggestion from the names of its columns: check each, then save it. The next file of this source is read the same way.'
      }}
    </p>
    <MappingWays :mapping="mapping" @change="change" />
    <div class="sides">
      <MappingFields :mapping="mapping" :header="preview.header" @change="change" />
      <MappedRows :preview="preview" />
    </div>
    <ProblemNote v-if="problem" :problem="problem" />
    <button class="button main" :disabled="busy || !preview.columns.length || preview.problems.length > 0" @click="keep">
      Save this mapping for {{ delivery.source }}
    </button>
  </section>
  <ProblemNote v-else-if="problem" :problem="problem" :retry="() => look(null)" />
</template>

<style scoped>
.panel {
  border: 1px solid var(--line-strong);
  border-radius: 6px;
  padding: 10px 14px;
  margin: 10px 0;
  background: var(--paper-raised);
}
.top {
  display: flex;
  justify-content: space-between;
}
.sides {
  display: grid;
  grid-template-columns: 480px minmax(0, 1fr);
  gap: 22px;
  align-items: start;
}
.button.main {
  margin-top: 10px;
}
@media (max-width: 1050px) {
  .sides {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
