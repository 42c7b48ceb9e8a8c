<script setup lang="ts">
/** A small line of amounts over time, without axes; its figures stand in the chart's table. */
const props = defineProps<{ amounts: string[] }>()
const WIDTH = 84
const HEIGHT = 18
const path = computed(() => {
  const values = props.amounts.map(Number)
  const top = Math.max(0, ...values)
  const bottom = Math.min(0, ...values)
  const span = top - bottom || 1
  const x = (i: number) => (values.length > 1 ? (i / (values.length - 1)) * WIDTH : WIDTH / 2)
  return values
    .map((value, i) => `${i ? 'L' : 'M'}${x(i).toFixed(1)} ${(HEIGHT - 1 - ((value - bottom) / span) * (HEIGHT - 2)).toFixed(1)}`)
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
