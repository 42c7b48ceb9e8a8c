<script setup lang="ts">
import { everyUnits, plainEvery, type EveryUnit } from '../../../core/time/rhythm'
import { NOBODY, type JobChange, type JobView } from '../../../shared/contracts/jobs'

/** How often a job is done, how long it waits after a try in vain, and who is told. */
const props = defineProps<{ job: JobView; busy: boolean }>()
const emit = defineEmits<{ change: [JobChange]; cancel: [] }>()
const session = useSession()
const isRegular = ref(props.job.every !== null)
const now = props.job.every && plainEvery(props.job.every)
const count = ref(now?.count ?? 1)
const unit = ref<EveryUnit>(now?.unit ?? 'day')
const pauseMinutes = ref(Math.max(1, Math.round(props.job.pauseSeconds / 60)))
const tell = ref(props.job.tell)
const names = computed(() => [...new Set([...session.people.map(person => person.name), props.job.tell, NOBODY])])
function save() {
  const every = isRegular.value ? { count: count.value, unit: unit.value } : null
  const isSame = every?.count === now?.count && every?.unit === now?.unit
  emit('change', { ...(isSame ? {} : { every }), pauseSeconds: pauseMinutes.value * 60, tell: tell.value })
}
</script>

<template>
  <form class="change" @submit.prevent="save" @keydown.esc="emit('cancel')">
    <fieldset>
      <legend>{{ job.does }}, {{ job.about }}</legend>
      <label
        ><span>when</span>
        <select v-model="isRegular" class="field">
          <option :value="true">automatically</option>
          <option :value="false">only on request</option>
        </select></label
      >
      <template v-if="isRegular">
        <label><span>every</span><input v-model.number="count" type="number" min="1" max="1000" required class="field short" /></label>
        <label
          ><span>unit</span>
          <select v-model="unit" class="field">
            <option v-for="one in everyUnits" :key="one" :value="one">{{ count === 1 ? one : `${one}s` }}</option>
          </select></label
        >
      </template>
      <label
        ><span>after a failure, try again in (minutes)</span
        ><input v-model.number="pauseMinutes" type="number" min="1" max="1440" required class="field short"
      /></label>
      <label
        ><span>person to tell</span>
        <select v-model="tell" class="field">
          <option v-for="name in names" :key="name">{{ name }}</option>
        </select></label
      >
      <button class="button main" :disabled="busy">Save</button>
      <button type="button" class="link" @click="emit('cancel')">Cancel</button>
    </fieldset>
  </form>
</template>

<style scoped>
.change fieldset {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 14px;
  align-items: end;
  border: 1px solid var(--line);
  border-radius: 4px;
  padding: 8px 12px 12px;
  margin: 2px 0 8px;
}
legend {
  padding: 0 6px;
  color: var(--ink-2);
}
label {
  display: grid;
  gap: 2px;
  font-size: 12px;
  color: var(--ink-2);
}
.short {
  width: 90px;
}
</style>
