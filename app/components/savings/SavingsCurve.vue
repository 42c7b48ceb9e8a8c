<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { workText } from '../../utils/savings-list'

/** Cumulative saving over hours of work, opportunity by opportunity; a block chosen opens what it stands for. */
const savings = useSavings()
const { opened } = defineProps<{ opened: string | null }>()
const emit = defineEmits<{ open: [string] }>()
const figure = useTemplateRef<HTMLElement>('figure')
const { width } = useElementSize(figure)
const WIDTH = computed(() => Math.max(300, Math.round(width.value) || 1000))
const HEIGHT = 150
const LEFT = 46
/** So many blocks can be told apart; the rest is one. */
const MOST_BLOCKS = 600
const most = computed(() => ({
  minutes: Math.max(1, savings.curve.at(-1)?.toMinutes ?? 1),
  saved: Math.max(0.01, Number(savings.curve.at(-1)?.to ?? 0)),
}))
const x = (minutes: number) => LEFT + (minutes / most.value.minutes) * (WIDTH.value - LEFT - 8)
const y = (saved: number) => HEIGHT - (saved / most.value.saved) * (HEIGHT - 12)
const byId = computed(() => new Map(savings.listed.map(one => [one.id, one])))
const within = computed(() => new Set(savings.groups.find(({ key }) => key === opened)?.rows.map(({ id }) => id)))
const blocks = computed(() =>
  savings.curve.slice(0, MOST_BLOCKS).map(step => {
    const one = byId.value.get(step.id)!
    const [from, to] = [x(step.fromMinutes), x(step.toMinutes)]
    const gap = to - from > 4 ? 1 : 0
    return {
      ...{ id: step.id, isIn: within.value.has(step.id) || savings.chosenId === step.id },
      ...{ x: from, width: Math.max(0.5, to - from - gap), top: y(Number(step.to)), bottom: y(Number(step.from)) },
      said: `${one.title}: ${money(one.saved!, savings.currency)} a month, ${workText(one.minutesOfWork)}`,
    }
  }),
)
const line = computed(() =>
  savings.curve.reduce((path, { toMinutes, to }) => `${path} L${x(toMinutes)} ${y(Number(to))}`, `M${x(0)} ${y(0)}`),
)
/** Round steps of an axis: as many as are read at a glance. */
function ticks(to: number, wanted: number): number[] {
  const raw = to / wanted
  const power = 10 ** Math.floor(Math.log10(raw))
  const step = [1, 2, 5, 10].map(n => n * power).find(n => n >= raw)!
  return Array.from({ length: Math.floor(to / step) + 1 }, (_, i) => i * step)
}
/** Where the words of the axis stand, no number does. */
const hours = computed(() => ticks(most.value.minutes / 60, 6).filter(hour => x(hour * 60) < WIDTH.value - 110))
const amounts = computed(() => ticks(most.value.saved, 4))
</script>

<template>
  <figure v-if="savings.curve.length" ref="figure" class="curve">
    <svg :viewBox="`0 0 ${WIDTH} ${HEIGHT + 24}`" role="group" aria-label="Saved a month over hours of work">
      <g class="axis">
        <template v-for="amount in amounts" :key="amount">
          <line :x1="LEFT" :x2="WIDTH - 8" :y1="y(amount)" :y2="y(amount)" />
          <text :x="LEFT - 6" :y="y(amount) + 4" text-anchor="end">{{ whole(String(amount)) }}</text>
        </template>
        <text v-for="hour in hours" :key="hour" :x="x(hour * 60)" :y="HEIGHT + 16" text-anchor="middle">{{ count(hour) }}</text>
        <text :x="WIDTH - 8" :y="HEIGHT + 16" text-anchor="end">hours of work</text>
      </g>
      <g v-for="block in blocks" :key="block.id" class="block" :class="{ chosen: block.isIn }" @click="emit('open', block.id)">
        <rect class="below" :x="block.x" :y="block.bottom" :width="block.width" :height="HEIGHT - block.bottom" />
        <rect class="own" :x="block.x" :y="block.top" :width="block.width" :height="Math.max(1, block.bottom - block.top)" />
        <title>{{ block.said }}</title>
      </g>
      <path :d="line" class="line" />
    </svg>
    <figcaption v-if="savings.half !== null && savings.curve.length > 1" class="minor">
      Half of it is saved in the first {{ workText(savings.half) }}.
    </figcaption>
  </figure>
</template>

<style scoped>
.curve {
  margin: 6px 0 10px;
}
svg {
  width: 100%;
  display: block;
}
text {
  font: 11.5px var(--sans);
  fill: var(--ink-3);
}
.axis line {
  stroke: var(--line);
}
.block {
  cursor: pointer;
}
.own {
  fill: var(--c2);
}
.below {
  fill: var(--c2);
  opacity: 0.1;
}
.block:hover .own,
.block.chosen .own {
  fill: var(--act);
}
.line {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.5;
  pointer-events: none;
}
</style>
