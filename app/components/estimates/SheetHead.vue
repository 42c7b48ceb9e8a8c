<script setup lang="ts">
import { figureNames, figureWords } from '../../../core/estimate/pricing/price-estimate'
import { sheetKey } from '../../composables/useSheet'

/** What the columns of the sheet are called; beside scenarios whose they are, and which figure they are compared by. */
const store = useEstimate()
const { inputColumns, figureColumns, comparing, compared } = inject(sheetKey)!
const groups = computed(() =>
  store.columns.map((column, at) => ({
    at,
    id: column.scenario,
    name: at ? store.estimate!.scenarios[at - 1]!.name : 'as it stands',
    width: figureColumns.value.filter(f => f.at === at).length,
  })),
)
</script>

<template>
  <thead>
    <tr v-if="comparing" class="scenarios">
      <th :colspan="inputColumns.length">
        <label class="minor compare"
          >compare
          <select v-model="compared" class="field">
            <option v-for="name in figureNames" :key="name" :value="name">{{ figureWords[name] }}</option>
          </select></label
        >
      </th>
      <th v-for="group in groups" :key="group.at" :colspan="group.width" class="n group">
        <button
          class="scenario"
          :class="{ on: store.scenarioId === group.id }"
          :aria-pressed="store.scenarioId === group.id"
          :title="store.scenarioId === group.id ? 'Its inputs are shown and edited' : 'Show and edit its inputs'"
          @click="store.scenarioId = group.id"
        >
          {{ columnLetter(group.at) }} · {{ group.name }}
        </button>
      </th>
    </tr>
    <tr>
      <th v-for="column in inputColumns" :key="column.key" :class="{ n: column.number, name: column.key === 'name' }">
        {{ column.label }}
      </th>
      <th v-if="!comparing" class="n first">unit price</th>
      <th v-for="column in figureColumns" :key="column.key" class="n" :class="{ first: column.first }">{{ column.label }}</th>
    </tr>
  </thead>
</template>

<style scoped>
.scenarios th {
  border-bottom: 1px solid var(--line);
}
.scenario {
  font-weight: 560;
  color: var(--ink-2);
  min-height: 24px;
  border-radius: 3px;
  padding: 0 4px;
  max-width: 220px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.scenario.on {
  color: var(--act);
  text-decoration: underline;
  text-underline-offset: 4px;
  text-decoration-thickness: 2px;
}
.group {
  border-left: 1px solid var(--line-strong);
}
.compare {
  display: flex;
  gap: 6px;
  align-items: center;
  font-weight: 400;
}
</style>
