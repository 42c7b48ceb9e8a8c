<script setup lang="ts">
import { addDays, addMonths, isDay, monthEnd, monthOf, monthStart } from '../../../core/time/day'
import { periodStep, type Period } from '../../../core/time/period'

const props = defineProps<{ period: Period, firstDay: string, lastDay: string }>()
const emit = defineEmits<{ choose: [Period] }>()
const open = ref(false)
const start = ref('')
const last = ref('')
watch(open, () => {
  start.value = props.period.start
  last.value = addDays(props.period.end, -1)
})
const month = computed(() => monthOf(props.lastDay))
const presets = computed(() => {
  const previous = addMonths(month.value, -1)
  return [
    { label: 'this month so far', period: usualPeriod(props.lastDay) },
    { label: monthText(previous), period: { start: monthStart(previous), end: monthEnd(previous) } },
    { label: 'the last 30 days', period: { start: addDays(props.lastDay, -29), end: addDays(props.lastDay, 1) } },
    { label: 'three whole months', period: { start: monthStart(addMonths(month.value, -3)), end: monthStart(month.value) } },
    { label: 'all that is loaded', period: { start: props.firstDay, end: addDays(props.lastDay, 1) } },
  ]
})
const wrong = computed(() => !isDay(start.value) || !isDay(last.value) ? 'Two days are needed.' : start.value > last.value ? 'The last day lies before the first.' : '')

function choose(period: Period) {
  open.value = false
  emit('choose', period)
}
useSingleKey('[', () => emit('choose', periodStep(props.period, -1)), 'the period before')
useSingleKey(']', () => emit('choose', periodStep(props.period, 1)), 'the period after')
</script>

<template>
  <UPopover v-model:open="open">
    <button class="control" :aria-label="`period: ${periodText(period)}`">{{ periodText(period) }}</button>
    <template #content>
      <form class="box" @submit.prevent="!wrong && choose({ start, end: addDays(last, 1) })">
        <button v-for="preset in presets" :key="preset.label" type="button" class="option" @click="choose(preset.period)"><span>{{ preset.label }}</span><span class="minor end">{{ periodText(preset.period) }}</span></button>
        <div class="own">
          <label>from <input v-model="start" type="date" class="field" required></label>
          <label>to <input v-model="last" type="date" class="field" required></label>
          <button class="button" :disabled="!!wrong">Show</button>
        </div>
        <p class="bad wrong">{{ wrong }}</p>
      </form>
    </template>
  </UPopover>
</template>

<style scoped>
.box { padding: 6px; width: 360px; }
.end { margin-left: auto; }
.own { display: flex; gap: 8px; align-items: end; padding: 8px 10px 2px; border-top: 1px solid var(--line); margin-top: 4px; }
.own label { display: grid; font-size: 12px; color: var(--ink-3); }
.wrong { min-height: 18px; padding: 0 10px; font-size: 12px; }
</style>
