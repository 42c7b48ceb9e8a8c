<script setup lang="ts">
import { helpersFor, runHelper, usualOf } from '../../../core/estimate/helpers'
import { evaluate } from '../../../core/working/working'

/** A small form that makes a number out of things people know. */
const props = defineProps<{ kind: string; field: string }>()
const emit = defineEmits<{ made: [string] }>()
const list = computed(() => helpersFor(props.kind, props.field))
const which = ref(0)
const inputs = reactive<Record<string, string>>({})
const helper = computed(() => list.value[which.value]!)
const given = computed(() =>
  Object.fromEntries(helper.value.fields.map(f => [f.name, inputs[`${helper.value.id} ${f.name}`] ?? usualOf(f)])),
)
const result = computed(() => runHelper(helper.value, given.value))
const made = computed(() => ('working' in result.value ? evaluate(result.value.working).round(4).toFixed() : null))
const problem = (name: string) => ('problems' in result.value ? result.value.problems[name] : undefined)
const key = (name: string) => `${helper.value.id} ${name}`
</script>

<template>
  <form class="box" @submit.prevent="made !== null && emit('made', made)">
    <p class="minor">
      <template v-if="list.length === 1">{{ helper.label }}</template><select
        v-else
        v-model="which"
        class="field"
        aria-label="how to work it out"
      >
        <option v-for="(other, i) in list" :key="other.id" :value="i">{{ other.label }}</option>
      </select>
    </p>
    <label v-for="one in helper.fields" :key="one.name" :title="one.help">
      <span>{{ one.label }}</span>
      <select
        v-if="one.type === 'choice'"
        class="field"
        :value="given[one.name]"
        @change="inputs[key(one.name)] = ($event.target as HTMLSelectElement).value"
      >
        <option
          v-for="option in one.options({ provider: '', currency: 'EUR', validFrom: '', regions: [], serverSizes: [], prices: [] }, '')"
          :key="option"
        >
          {{ option }}
        </option>
      </select>
      <input
        v-else
        class="field"
        :class="{ wrong: problem(one.name) }"
        :value="given[one.name]"
        @input="inputs[key(one.name)] = ($event.target as HTMLInputElement).value"
      />
      <i class="minor">{{ one.unit }}</i>
      <span v-if="problem(one.name)" class="bad minor whole">{{ problem(one.name) }}</span>
    </label>
    <p v-if="'working' in result" class="minor">
      {{ result.working.label }}: <b>{{ quantity(made!) }}</b>
    </p>
    <button class="button" :disabled="made === null">Put it in</button>
  </form>
</template>

<style scoped>
.box {
  border-left: 2px solid var(--act);
  padding: 2px 0 4px 10px;
  margin: 4px 0;
  display: grid;
  gap: 4px;
  justify-items: start;
}
label {
  display: grid;
  grid-template-columns: 110px 110px auto;
  gap: 6px;
  align-items: center;
}
.field {
  min-width: 0;
  width: 100%;
}
.whole {
  grid-column: 1 / -1;
}
</style>
