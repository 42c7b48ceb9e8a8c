<script setup lang="ts">
/** What passed a gateway on each day of the look-back, against what its own checks make. */
const props = defineProps<{ days: { day: string; gb: number }[]; total: string }>()
const WIDTH = 350
const HEIGHT = 70
const most = computed(() => Math.max(1, ...props.days.map(d => d.gb)))
const bars = computed(() =>
  props.days.map((d, i) => ({
    ...d,
    x: (i * WIDTH) / props.days.length,
    width: WIDTH / props.days.length - 1.5,
    height: (d.gb / most.value) * HEIGHT,
  })),
)
</script>

<template>
  <figure>
    <svg :viewBox="`0 -14 ${WIDTH} ${HEIGHT + 32}`" role="img" :aria-label="`${days.length} days measured, ${total} GB in all`">
      <line x1="0" :x2="WIDTH" y1="0" y2="0" stroke="var(--line)" />
      <text :x="WIDTH" y="-4" text-anchor="end">{{ most.toFixed(most < 10 ? 1 : 0) }} GB a day</text>
      <rect
        v-for="bar in bars"
        :key="bar.day"
        :x="bar.x"
        :y="HEIGHT - bar.height"
        :width="bar.width"
        :height="Math.max(bar.height, 1.5)"
        :fill="bar.gb > 0 ? 'var(--c1)' : 'var(--line-strong)'"
      >
        <title>{{ dayText(bar.day) }}: {{ bar.gb.toFixed(3) }} GB</title>
      </rect>
      <line x1="0" :x2="WIDTH" :y1="HEIGHT" :y2="HEIGHT" stroke="var(--ink-3)" />
      <text x="0" :y="HEIGHT + 15">{{ dayShortText(days[0]?.day ?? '2026-01-01') }}</text>
      <text :x="WIDTH" :y="HEIGHT + 15" text-anchor="end">{{ dayShortText(days.at(-1)?.day ?? '2026-01-01') }}</text>
    </svg>
    <figcaption class="minor">
      {{ total === '0' ? 'Nothing' : `${total} GB` }} passed in {{ days.length }} days, measured every hour.
    </figcaption>
  </figure>
</template>

<style scoped>
svg {
  width: 100%;
  display: block;
}
text {
  font: 11px var(--sans);
  fill: var(--ink-3);
}
</style>
