<script setup lang="ts">
import { useElementSize } from '@vueuse/core'

/** Amounts over time as small bars, one or two a start; every figure stands in the table for screen readers and on hover. */
const props = defineProps<{
  label: string
  starts: string[]
  grain: string
  /** In the colours of the row, but for what is `missing` (hatched) and what is `without` a say of its own (as little as a rest). */
  series: { name: string; amounts: string[]; look?: 'missing' | 'without' }[]
  unit: string
  height?: number
  /** One bar a start, its parts on top of each other. */ stacked?: boolean
  format?: (amount: string) => string
}>()
const HEIGHT = computed(() => props.height ?? 90)
const values = computed(() => props.series.map(s => s.amounts.map(Number)))
const top = computed(() =>
  Math.max(
    0,
    ...(props.stacked ? props.starts.map((_, i) => values.value.reduce((n, list) => n + Math.max(0, list[i]!), 0)) : values.value.flat()),
  ),
)
const bottom = computed(() => Math.min(0, ...values.value.flat()))
const span = computed(() => top.value - bottom.value || 1)
const said = (amount: string) => (props.format ? props.format(amount) : money(amount, props.unit))
const background = (s: number) => {
  const { look } = props.series[s]!
  if (look === 'missing') return 'var(--hatch)'
  return look === 'without' ? 'var(--rest)' : `var(--c${s + 1})`
}
const below = (s: number, i: number) => (props.stacked ? values.value.slice(0, s).reduce((n, list) => n + Math.max(0, list[i]!), 0) : 0)
const bar = (value: number, from = 0) => ({
  top: `${((top.value - from - Math.max(0, value)) / span.value) * 100}%`,
  height: `${Math.max(0.6, (Math.abs(value) / span.value) * 100)}%`,
})
const tick = (start: string) =>
  props.grain === 'month'
    ? `${monthText(start).slice(0, 3)} ${start.slice(2, 4)}`
    : start.endsWith('-01') || start === props.starts[0]
      ? dayShortText(start)
      : String(Number(start.slice(8)))
// as many starts are named as their names have room for
const plot = useTemplateRef<HTMLElement>('plot')
const { width } = useElementSize(plot)
const NAME_PX = 46
const every = computed(() => Math.max(1, Math.ceil((props.starts.length * NAME_PX) / (width.value || 16 * NAME_PX))))
</script>

<template>
  <figure class="bars">
    <div ref="plot" class="plot" :style="{ height: `${HEIGHT}px` }" aria-hidden="true">
      <div v-for="(start, i) in starts" :key="start" class="slot" :class="{ stacked }">
        <span v-for="(one, s) in series" :key="one.name" class="half" :class="{ over: stacked }"
          ><span
            class="bar"
            :style="{ ...bar(values[s]![i]!, below(s, i)), background: background(s) }"
            :title="`${startText(start, grain)}, ${one.name}: ${said(one.amounts[i]!)} ${unit}`"
        /></span>
      </div>
    </div>
    <div class="ticks minor" aria-hidden="true">
      <span v-for="(start, i) in starts" :key="start">{{ i % every === 0 ? tick(start) : '' }}</span>
    </div>
    <ul v-if="series.length > 1" class="legend minor">
      <li v-for="(one, s) in series" :key="one.name"><span class="swatch" :style="{ background: background(s) }" /> {{ one.name }}</li>
    </ul>
    <table class="sr-only">
      <caption>
        {{
          label
        }},
        {{
          unit
        }}
      </caption>
      <thead>
        <tr>
          <th>start</th>
          <th v-for="one in series" :key="one.name">{{ one.name }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(start, i) in starts" :key="start">
          <th>{{ startText(start, grain) }}</th>
          <td v-for="one in series" :key="one.name">{{ said(one.amounts[i]!) }}</td>
        </tr>
      </tbody>
    </table>
  </figure>
</template>

<style scoped>
.plot {
  display: flex;
  gap: 2px;
  border-bottom: 1px solid var(--line-strong);
}
.slot {
  flex: 1;
  display: flex;
  gap: 1px;
  min-width: 2px;
  max-width: 60px;
}
.half {
  flex: 1;
  position: relative;
}

.slot.stacked {
  position: relative;
}
.half.over {
  position: absolute;
  inset: 0;
}
.bar {
  position: absolute;
  left: 0;
  right: 0;
  border-radius: 1px;
}
.ticks {
  display: flex;
  gap: 2px;
}
.ticks span {
  flex: 1;
  max-width: 60px;
  white-space: nowrap;
  overflow: visible;
  min-width: 2px;
  font-size: 11px;
}
.legend {
  display: flex;
  gap: 14px;
  margin-top: 2px;
}
.swatch {
  display: inline-block;
  width: 9px;
  height: 9px;
  border-radius: 1px;
}
</style>
