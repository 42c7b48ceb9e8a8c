<script setup lang="ts">
import { addDays, isDay } from '../../../core/time/day'
import type { Period } from '../../../core/time/period'

/** Two days to type, the last included, and a button that takes them. */
const props = defineProps<{ period: Period | null; act: string }>()
const emit = defineEmits<{ choose: [Period] }>()
const start = ref('')
const last = ref('')
watch(
  () => props.period,
  period => {
    if (!period) return
    start.value = period.start
    last.value = addDays(period.end, -1)
  },
  { immediate: true },
)
const wrong = computed(() =>
  !isDay(start.value) || !isDay(last.value)
    ? 'Two days are needed.'
    : start.value > last.value
      ? 'The last day lies before the first.'
      : '',
)
</script>

<template>
  <form class="own" @submit.prevent="!wrong && emit('choose', { start, end: addDays(last, 1) })">
    <label>from <input v-model="start" type="date" class="field" required /></label>
    <label>to <input v-model="last" type="date" class="field" required /></label>
    <button class="button" :disabled="!!wrong">{{ act }}</button>
    <p class="bad wrong">{{ wrong }}</p>
  </form>
</template>

<style scoped>
.own {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 8px;
  align-items: end;
  padding: 8px 10px 2px;
  border-top: 1px solid var(--line);
  margin-top: 4px;
}
.own label {
  display: grid;
  font-size: 12px;
  color: var(--ink-3);
}
.wrong {
  flex-basis: 100%;
  min-height: 18px;
  font-size: 12px;
}
</style>
