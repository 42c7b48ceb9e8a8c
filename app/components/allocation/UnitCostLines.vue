<script setup lang="ts">
import { lineLayout } from '../../../core/unit-cost/line-layout'

/** What one costs over the months, a line a product; broken where it is not defined. The figures are in the table below. */
const props = defineProps<{
  series: { name: string; values: (string | null)[] }[]
  months: readonly string[]
  unit: string
  format: (amount: string) => string
}>()
const [WIDTH, HEIGHT, LEFT, RIGHT] = [1240, 210, 70, 170]
const picture = computed(() => lineLayout(props.series))
const x = (share: number) => LEFT + share * (WIDTH - LEFT - RIGHT)
const y = (share: number) => share * HEIGHT
const path = (points: readonly { x: number; y: number }[]) => points.map((one, i) => `${i ? 'L' : 'M'}${x(one.x)},${y(one.y)}`).join(' ')
const tone = (place: number) => `var(--c${(place % 8) + 1})`
/** Names at the ends of their lines, moved apart where they would meet. */
const ends = computed(() => {
  const found = picture.value.lines
    .flatMap(({ name, stretches }, place) => {
      const last = stretches.at(-1)?.at(-1)
      return last ? [{ name, place, x: x(last.x), y: y(last.y) }] : []
    })
    .sort((a, b) => a.y - b.y)
  found.forEach((one, i) => {
    if (i) one.y = Math.max(one.y, found[i - 1]!.y + 15)
  })
  return found
})
const ticks = computed(() => {
  const { top, bottom } = picture.value
  return [top, (top + bottom) / 2, bottom].map((value, i) => ({ value, y: y(i / 2) }))
})
</script>

<template>
  <svg
    :viewBox="`0 -12 ${WIDTH} ${HEIGHT + 40}`"
    class="lines"
    role="img"
    :aria-label="`What one ${unit} costs by month; the figures are in the table below`"
  >
    <g v-for="tick in ticks" :key="tick.y">
      <line :x1="LEFT" :x2="WIDTH - RIGHT" :y1="tick.y" :y2="tick.y" class="grid" />
      <text :x="LEFT - 8" :y="tick.y + 4" text-anchor="end" class="said">{{ format(tick.value.toFixed(9)) }}</text>
    </g>
    <template v-for="(month, i) in months" :key="month">
      <text
        v-if="months.length < 15 || i % 3 === 0"
        :x="x(months.length > 1 ? i / (months.length - 1) : 0.5)"
        :y="HEIGHT + 18"
        text-anchor="middle"
        class="said"
      >
        {{ monthText(month).slice(0, 3) }} {{ month.slice(2, 4) }}
      </text>
    </template>
    <g v-for="(line, place) in picture.lines" :key="line.name">
      <path v-for="(stretch, i) in line.stretches" :key="i" :d="path(stretch)" fill="none" :stroke="tone(place)" stroke-width="2" />
      <template v-for="stretch in line.stretches" :key="stretch[0]!.at">
        <circle v-for="point in stretch" :key="point.at" :cx="x(point.x)" :cy="y(point.y)" r="3" :fill="tone(place)">
          <title>{{ line.name }}, {{ monthText(months[point.at]!) }}: {{ format(series[place]!.values[point.at]!) }}</title>
        </circle>
      </template>
    </g>
    <text v-for="end in ends" :key="end.place" :x="end.x + 9" :y="end.y + 4" :fill="tone(end.place)" class="name">{{ end.name }}</text>
  </svg>
</template>

<style scoped>
.lines {
  width: 100%;
  max-height: 290px;
  display: block;
}
.grid {
  stroke: var(--line);
}
.said {
  font: 11.5px var(--sans);
  fill: var(--ink-2);
}
.name {
  font: 560 12px var(--sans);
}
</style>
