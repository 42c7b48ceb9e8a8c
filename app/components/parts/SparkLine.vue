<script setup lang="ts">
/** A small line of amounts over time, without axes; its figures stand in the chart's table. */
const props = defineProps<{ amounts: (string | null)[] }>()
const WIDTH = 84
const HEIGHT = 18
const path = computed(() => {
  const values = props.amounts.map(amount => (amount === null ? null : Number(amount)))
  const known = values.filter(value => value !== null)
  const top = Math.max(0, ...known)
  const bottom = Math.min(0, ...known)
  const span = top - bottom || 1
  const x = (i: number) => (values.length > 1 ? (i / (values.length - 1)) * WIDTH : WIDTH / 2)
  // where there is no figure the line is broken
  return values
    .map((value, i) =>
      value === null
        ? ''
        : `${(values[i - 1] ?? null) === null ? 'M' : 'L'}${x(i).toFixed(1)} ${(HEIGHT - 1 - ((value - bottom) / span) * (HEIGHT - 2)).toFixed(1)}`,
    )
    .join('')
})
</script>

<template>
  <svg class="spark" :viewBox="`0 0 ${WIDTH} ${HEIGHT}`" :width="WIDTH" :height="HEIGHT" aria-hidden="true"><path :d="path" /></svg>
</template>

<style scoped>
.spark {
  display: block;
}
path {
  fill: none;
  stroke: var(--ink-3);
  stroke-width: 1.2;
  stroke-linejoin: round;
}
</style>
