<script setup lang="ts">
import { rollingPeriods } from '../../../core/spend/sentence'
import type { DataDays } from '../../../core/spend/sentence-period'
import { addMonths, monthEnd, monthOf, monthStart } from '../../../core/time/day'
import { periodStep, type Period } from '../../../core/time/period'

/** The period of the Sentence: one that rolls with the data, a month, or two days. */
const props = defineProps<{ period: Sentence['period']; days: DataDays }>()
const emit = defineEmits<{ choose: [Sentence['period']] }>()
const open = ref(false)
const now = computed(() => resolvePeriod(props.period, props.days))
const months = computed(() => {
  const list: { label: string; period: Period }[] = []
  for (let month = monthOf(props.days.lastDay); month >= monthOf(props.days.firstDay) && list.length < 13; month = addMonths(month, -1))
    list.push({ label: monthText(month).slice(0, 3) + ` ${month.slice(2, 4)}`, period: { start: monthStart(month), end: monthEnd(month) } })
  return list.reverse()
})
const said = computed(() => periodText(now.value))

function choose(period: Sentence['period']) {
  open.value = false
  emit('choose', period)
}
useSingleKey('[', () => emit('choose', periodStep(now.value, -1)), 'the period before')
useSingleKey(']', () => emit('choose', periodStep(now.value, 1)), 'the period after')
</script>

<template>
  <UPopover v-model:open="open">
    <button class="control" :aria-label="`period: ${said}`">{{ said }}</button>
    <template #content>
      <div class="box">
        <p class="minor head">moves with the data</p>
        <div class="rolling">
          <button
            v-for="name in rollingPeriods"
            :key="name"
            type="button"
            class="option"
            :class="{ on: period === name }"
            @click="choose(name)"
          >
            <span>{{ rollingNames[name] }}</span>
          </button>
        </div>
        <p class="minor head">one month</p>
        <div class="months">
          <button v-for="month in months" :key="month.label" type="button" class="month" @click="choose(month.period)">
            {{ month.label }}
          </button>
        </div>
        <DayRange :period="now" act="Show" @choose="choose" />
      </div>
    </template>
  </UPopover>
</template>

<style scoped>
.box {
  padding: 6px;
  width: 380px;
}
.head {
  padding: 4px 10px 0;
  font-weight: 560;
}
.rolling {
  display: grid;
  grid-template-columns: 1fr 1fr;
}
.months {
  display: flex;
  flex-wrap: wrap;
  gap: 2px;
  padding: 2px 6px 6px;
}
.month {
  min-height: 24px;
  padding: 0 7px;
  border-radius: 4px;
  font-size: 12.5px;
}
.month:hover,
.month:focus-visible {
  background: var(--act-soft);
}
</style>
