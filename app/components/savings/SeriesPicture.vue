<script setup lang="ts">
import type { EvidenceSeries } from '../../../core/opportunity/opportunity'

/** What was measured on each day of the look-back. */
const { series } = defineProps<{ series: EvidenceSeries }>()
const WIDTH = 350
const HEIGHT = 70
/** What a level is held against is part of its scale; a sum of many days is not that of a day. */
const most = computed(() => Math.max(1, ...series.days.map(d => d.value), series.isHighest ? (series.threshold?.value ?? 0) : 0))
/** Where the threshold lies, where it can be drawn. */
const limit = computed(() => {
  const value = series.threshold?.value
  return value === undefined || value > most.value ? null : HEIGHT - (value / most.value) * HEIGHT
})
const bars = computed(() =>
  series.days.map((d, i) => ({
    ...d,
    x: (i * WIDTH) / series.days.length,
    width: WIDTH / series.days.length - 1.5,
    height: (d.value / most.value) * HEIGHT,
  })),
)
</script>

<template>
  <figure>
    <svg
      v-if="series.days.length"
      :viewBox="`0 -14 ${WIDTH} ${HEIGHT + 32}`"
      role="img"
      :aria-label="`${series.label}, ${series.days.length} days: ${series.said}`"
    >
      <line x1="0" :x2="WIDTH" y1="0" y2="0" stroke="var(--line)" />
      <text :x="WIDTH" y="-4" text-anchor="end">
        {{ most.toFixed(most < 10 ? 1 : 0) }} {{ series.unit }}{{ series.isHighest ? '' : ' a day' }}
      </text>
      <rect
        v-for="bar in bars"
        :key="bar.day"
        :x="bar.x"
        :y="HEIGHT - bar.height"
        :width="bar.width"
        :height="Math.max(bar.height, 1.5)"
        :fill="bar.value > 0 ? 'var(--c1)' : 'var(--line-strong)'"
      >
        <title>{{ dayText(bar.day) }}: {{ bar.value.toFixed(3) }} {{ series.unit }}</title>
      </rect>
      <line x1="0" :x2="WIDTH" :y1="HEIGHT" :y2="HEIGHT" stroke="var(--ink-3)" />
      <line v-if="limit !== null" x1="0" :x2="WIDTH" :y1="limit" :y2="limit" class="limit" />
      <text x="0" :y="HEIGHT + 15">{{ dayShortText(series.days[0]!.day) }}</text>
      <text :x="WIDTH" :y="HEIGHT + 15" text-anchor="end">{{ dayShortText(series.days.at(-1)!.day) }}</text>
    </svg>
    <figcaption class="minor">{{ series.said }}{{ series.threshold ? ` ${capitalised(series.threshold.label)}.` : '' }}</figcaption>
  </figure>
</template>

<style scoped>
svg {
  width: 100%;
  display: block;
}
/* the threshold */
.limit {
  stroke: var(--bad);
  stroke-width: 1.5;
  stroke-dasharray: 5 3;
}
text {
  font: 11px var(--sans);
  fill: var(--ink-3);
}
</style>
